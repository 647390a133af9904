package joiner.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import joiner.compare.Comparison;
import joiner.compare.Effect;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Tells what leads from one design to another. */
@Command(
    name = "compare",
    description = {
      "Tell what leads from one design to another, and what it may do to data that is there.",
      "Exit code 0 if they say the same, 1 if not."
    },
    mixinStandardHelpOptions = true)
final class CompareCommand implements Callable<Integer> {
  @Parameters(index = "0", paramLabel = "A", description = "A design.")
  private Path one;

  @Parameters(index = "1", paramLabel = "B", description = "Another.")
  private Path other;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    List<Effect> effects = Comparison.between(open(one), open(other));
    EffectsOut.print(effects, json, spec.commandLine().getOut());
    return effects.isEmpty() ? ExitCode.FINE : ExitCode.ERRORS;
  }

  private Draft open(Path path) throws IOException, UnreadableFileException {
    DesignFolder.Opened opened = DesignFolder.open(path);
    opened.notices().forEach(notice -> spec.commandLine().getErr().println("note: " + notice));
    return opened.draft();
  }
}
