package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import joiner.format.UnreadableFileException;
import joiner.source.Source;
import joiner.source.SourceTable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** The one table of a file that a command works on. */
final class TableArgument {
  @Mixin private SourceArgument sources;

  @Option(
      names = "--table",
      paramLabel = "NAME",
      description = "The sheet or section, where the file has several.")
  private String table;

  @Spec(Spec.Target.MIXEE)
  private CommandSpec spec;

  SourceTable read(Path file, PrintWriter err) throws IOException, UnreadableFileException {
    Source source = sources.read(file, err);
    return source.tables().get(place(file, source));
  }

  Source source(Path file, PrintWriter err) throws IOException, UnreadableFileException {
    return sources.read(file, err);
  }

  int place(Path file, Source source) {
    for (int i = 0; i < source.tables().size(); i++) {
      if (table == null
          ? source.tables().size() == 1
          : source.tables().get(i).name().equals(table)) {
        return i;
      }
    }
    throw new ParameterException(
        spec.commandLine(),
        file
            + " has the tables "
            + String.join(", ", source.tables().stream().map(SourceTable::name).toList())
            + "; name one of them with --table");
  }
}
