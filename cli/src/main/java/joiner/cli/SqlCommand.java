package joiner.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Optional;
import java.util.concurrent.Callable;
import joiner.catalog.Surroundings;
import joiner.compare.Comparison;
import joiner.compare.Effect;
import joiner.compare.Effects;
import joiner.compare.Risk;
import joiner.database.LiveDesign;
import joiner.database.Shipment;
import joiner.database.TargetRefusedException;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialect;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Prints the schema script. */
@Command(
    name = "sql",
    description = {
      "Print the schema script of a design for one engine,",
      "or the script that changes a database that was made from an earlier design."
    },
    footer = "The password comes from JOINER_PASSWORD or a prompt.",
    mixinStandardHelpOptions = true)
final class SqlCommand implements Callable<Integer> {
  @Mixin private DesignArgument design;

  @Option(
      names = "--dialect",
      converter = EngineWord.class,
      completionCandidates = EngineWord.class,
      description = "The engine: ${COMPLETION-CANDIDATES}; a JDBC URL says it too.")
  private Optional<Dialect> dialect;

  @Option(
      names = "--since",
      paramLabel = "EARLIER",
      description = {
        "Change a database made from this design, or the one at this JDBC URL, instead of making one.",
        "Its rows stay; what does not fit is refused by the engine. Nothing is changed by printing."
      })
  private Optional<String> since;

  @Mixin private LiveArgument live;

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
  public Integer call() throws IOException, UnreadableFileException, TargetRefusedException {
    Draft draft = design.open(spec.commandLine().getErr()).draft();
    String text = since.isPresent() ? changing(draft, since.get()) : making(draft);
    if (file.isPresent()) {
      Files.writeString(file.get(), text);
    } else {
      spec.commandLine().getOut().print(text);
    }
    return ExitCode.FINE;
  }

  private String making(Draft draft) {
    return SchemaScript.of(draft, engine(dialect), rows).text(draft.design().title());
  }

  private String changing(Draft after, String earlier)
      throws IOException, UnreadableFileException, TargetRefusedException {
    LiveDesign before = before(after, earlier);
    DesignArgument.note(before.notices(), spec.commandLine().getErr());
    Comparison.Matched matched = Comparison.matched(after, before.draft());
    var does = new ArrayList<String>();
    matched.guesses().forEach(guess -> does.add(guess.message()));
    Effects.between(matched.draft(), after).stream()
        .filter(effect -> effect.kind() != Effect.Kind.ROWS_CHANGED)
        .filter(effect -> effect.risk() != Risk.NONE)
        .forEach(effect -> does.add(effect.risk().id() + ": " + effect.message()));
    Optional<Dialect> told = dialect;
    if (LiveArgument.isLive(earlier)) {
      told = Optional.of(Shipment.dialectOf(earlier));
      if (dialect.isPresent() && !dialect.equals(told)) {
        throw new ParameterException(
            spec.commandLine(),
            "The database is of " + told.get().engine() + "; leave --dialect out.");
      }
    }
    return SchemaScript.changing(matched.draft(), after, before.around(), engine(told))
        .text("Changes to " + after.design().title(), does);
  }

  private LiveDesign before(Draft after, String earlier)
      throws IOException, UnreadableFileException, TargetRefusedException {
    if (LiveArgument.isLive(earlier)) {
      return LiveDesign.of(after, live.target(earlier));
    }
    DesignFolder.Opened opened = DesignFolder.open(Path.of(earlier));
    return new LiveDesign(opened.draft(), opened.notices(), Surroundings.NONE);
  }

  private Dialect engine(Optional<Dialect> told) {
    return told.orElseThrow(
        () ->
            new ParameterException(
                spec.commandLine(), "Say for which engine: --dialect with one of its words."));
  }
}
