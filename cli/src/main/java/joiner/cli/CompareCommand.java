package joiner.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import joiner.compare.Comparison;
import joiner.compare.Effect;
import joiner.database.LiveDesign;
import joiner.database.Progress;
import joiner.database.TargetRefusedException;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Tells what leads from one design or database to another. */
@Command(
    name = "compare",
    description = {
      "Tell what leads from one design or database to another, and what it may do to data that is there.",
      "Of a database only what databases keep is compared with a design.",
      "Exit code 0 if they say the same, 1 if not."
    },
    footer = "The password comes from JOINER_PASSWORD or a prompt.",
    mixinStandardHelpOptions = true)
final class CompareCommand implements Callable<Integer> {
  @Parameters(index = "0", paramLabel = "A", description = "A design or a JDBC URL.")
  private String one;

  @Parameters(index = "1", paramLabel = "B", description = "Another.")
  private String other;

  @Mixin private LiveArgument live;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException, TargetRefusedException {
    List<Effect> effects = effects();
    EffectsOut.print(effects, json, spec.commandLine().getOut());
    return effects.isEmpty() ? ExitCode.FINE : ExitCode.ERRORS;
  }

  private List<Effect> effects()
      throws IOException, UnreadableFileException, TargetRefusedException {
    if (LiveArgument.isLive(one) && LiveArgument.isLive(other)) {
      return Comparison.between(alone(one), alone(other));
    }
    if (LiveArgument.isLive(one)) {
      Draft known = open(other);
      return Comparison.between(seenFrom(known, one), known);
    }
    Draft known = open(one);
    return Comparison.between(
        known, LiveArgument.isLive(other) ? seenFrom(known, other) : open(other));
  }

  private Draft alone(String url) throws TargetRefusedException {
    return told(LiveDesign.read(live.target(url), "Database", 0, Progress.NONE));
  }

  private Draft seenFrom(Draft known, String url) throws TargetRefusedException {
    return told(LiveDesign.of(known, live.target(url)));
  }

  private Draft told(LiveDesign design) {
    note(design.notices());
    return design.draft();
  }

  private Draft open(String path) throws IOException, UnreadableFileException {
    DesignFolder.Opened opened = DesignFolder.open(Path.of(path));
    note(opened.notices());
    return opened.draft();
  }

  private void note(List<String> notices) {
    DesignArgument.note(notices, spec.commandLine().getErr());
  }
}
