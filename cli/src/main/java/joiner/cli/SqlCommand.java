package joiner.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import joiner.ddl.Dialects;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.format.UnreadableFileException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Prints the schema script. */
@Command(
    name = "sql",
    description = "Print the schema script of a design for one engine.",
    mixinStandardHelpOptions = true)
final class SqlCommand implements Callable<Integer> {
  /** The engines, as the command line spells them. */
  enum Engine {
    postgresql,
    sqlite,
    h2
  }

  @Mixin private DesignArgument design;

  @Option(
      names = "--dialect",
      required = true,
      description = "The engine: ${COMPLETION-CANDIDATES}.")
  private Engine dialect;

  @Option(
      names = "--rows",
      defaultValue = "lookups",
      description = "Which rows go in: none, lookups (as usual) or all.")
  private RowsChoice rows;

  @Option(
      names = "--out",
      paramLabel = "FILE",
      description = "Write to this file instead of the screen.")
  private Optional<Path> file;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    var draft = design.open(Optional.empty(), spec.commandLine().getErr()).draft();
    var engine = Dialects.named(dialect.name()).orElseThrow();
    String text = SchemaScript.of(draft, engine, rows).text(draft.design().title());
    if (file.isPresent()) {
      Files.writeString(file.get(), text);
    } else {
      spec.commandLine().getOut().print(text);
    }
    return ExitCode.FINE;
  }
}
