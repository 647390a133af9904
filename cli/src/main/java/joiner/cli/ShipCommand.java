package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.audit.KnownAudit;
import joiner.database.Progress;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.ShipGate;
import joiner.engine.Dialect;
import joiner.finding.DesignChecks;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.source.LinkedFile;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Makes a design real on a target. */
@Command(
    name = "ship",
    description = "Run the schema script on a database, read it back and verify it.",
    footer = "The password comes from JOINER_PASSWORD or a prompt.",
    mixinStandardHelpOptions = true)
final class ShipCommand implements Callable<Integer> {
  @Mixin private DesignArgument design;

  @Option(
      names = "--url",
      required = true,
      paramLabel = "JDBC_URL",
      description = "The database, by its JDBC URL.")
  private String url;

  @Mixin private LiveArgument live;

  @Option(
      names = "--rows",
      defaultValue = "lookups",
      description = "Which rows go along: none, lookups (as usual) or all.")
  private RowsChoice rows;

  @Option(names = "--dry-run", description = "Only count the statements; nothing is sent.")
  private boolean dryRun;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException, TargetRefusedException {
    PrintWriter out = spec.commandLine().getOut();
    Draft draft = design.open(spec.commandLine().getErr()).draft();
    Optional<String> broken = broken(draft);
    if (broken.isPresent()) {
      spec.commandLine().getErr().println("joiner: " + broken.get());
      return ExitCode.ERRORS;
    }
    Target target = live.target(url);
    Dialect dialect = Shipment.dialectOf(url);
    if (dryRun) {
      int statements = SchemaScript.toSend(draft, dialect, rows).statements().size();
      return report(
          statements,
          false,
          List.of(),
          statements + " statements would run on " + target.shown() + "; nothing was sent",
          out);
    }
    if (!dialect.undoesDefinitions()) {
      DesignArgument.note(
          List.of(
              dialect.engine()
                  + " keeps each definition at once; if Joiner is killed while it ships, the tables"
                  + " made so far stay there."),
          spec.commandLine().getErr());
    }
    Shipment shipment = Shipment.ship(draft, target, rows, Progress.NONE);
    boolean holds = shipment.verification().holds();
    String words =
        shipment.statements()
            + " statements ran on "
            + target.shown()
            + (holds
                ? "; everything promised is there"
                : "; not everything promised was there, so nothing was kept:");
    report(shipment.statements(), holds, shipment.verification().differences(), words, out);
    return holds ? ExitCode.FINE : ExitCode.REFUSED;
  }

  /** Why the design or its rows cannot be shipped as they are. */
  private Optional<String> broken(Draft draft) {
    AuditReport audit =
        rows == RowsChoice.NONE
            ? new AuditReport(List.of())
            : Audit.of(
                draft,
                LinkedFile.of(draft, () -> false),
                Clock.systemDefaultZone(),
                new KnownAudit(),
                (table, row) -> true);
    List<ShipGate.Obstacle> obstacles =
        ShipGate.obstacles(draft.design(), DesignChecks.run(draft), audit, rows);
    if (obstacles.isEmpty()) {
      return Optional.empty();
    }
    ShipGate.Obstacle first = obstacles.getFirst();
    long errors = obstacles.stream().filter(obstacle -> !obstacle.inRows()).count();
    return Optional.of(
        first.inRows()
            ? "the rows of "
                + draft.design().table(first.table()).name()
                + " break the design: "
                + first.message()
                + " Run “joiner audit” and mend them, or ship with --rows none."
            : "the design has "
                + errors
                + " errors, the first: "
                + first.message()
                + " Run “joiner check” and mend them first.");
  }

  private Integer report(
      int statements, boolean verified, List<String> differences, String words, PrintWriter out)
      throws IOException {
    if (json) {
      Map<String, Object> document = new LinkedHashMap<>();
      document.put("statements", statements);
      document.put("verified", verified);
      document.put("differences", differences);
      JsonOut.print(document, out);
    } else {
      out.println(words);
      differences.forEach(difference -> out.println("  " + difference));
    }
    return ExitCode.FINE;
  }
}
