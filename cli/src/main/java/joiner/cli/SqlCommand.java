package joiner.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialect;
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
  @Mixin private DesignArgument design;

  @Option(
      names = "--dialect",
      required = true,
      converter = EngineWord.class,
      completionCandidates = EngineWord.class,
      description = "The engine: ${COMPLETION-CANDIDATES}.")
  private Dialect dialect;

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
    var draft = design.open(spec.commandLine().getErr()).draft();
    String text = SchemaScript.of(draft, dialect, rows).text(draft.design().title());
    if (file.isPresent()) {
      Files.writeString(file.get(), text);
    } else {
      spec.commandLine().getOut().print(text);
    }
    return ExitCode.FINE;
  }
}
