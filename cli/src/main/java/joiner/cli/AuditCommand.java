package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.atomic.AtomicLong;
import joiner.audit.Anomalies;
import joiner.audit.Anomaly;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.audit.KnownAudit;
import joiner.audit.TableAudit;
import joiner.audit.Violation;
import joiner.database.LiveAudit;
import joiner.database.Progress;
import joiner.database.TargetRefusedException;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.source.LinkedFile;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Checks rows against a design. */
@Command(
    name = "audit",
    description = "Check rows against a design. Exit code 1 if a row breaks a constraint.",
    mixinStandardHelpOptions = true)
final class AuditCommand implements Callable<Integer> {
  private static final int ROWS_NAMED = 20;
  private static final long KEYS_IN_MEMORY = 384L << 20;
  private static final long TELL_NANOS = 3_000_000_000L;

  @Mixin private DesignArgument design;

  @Option(
      names = "--data",
      paramLabel = "DIR",
      description = "Take the rows from the CSV files TABLE.csv in this folder.")
  private Optional<Path> data;

  @Option(
      names = "--url",
      paramLabel = "JDBC",
      description = "Ask this database about the rows it holds; nothing is changed there.")
  private Optional<String> url;

  @Mixin private LiveArgument live;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException, TargetRefusedException {
    PrintWriter out = spec.commandLine().getOut();
    PrintWriter err = spec.commandLine().getErr();
    if (data.isPresent() && url.isPresent()) {
      throw new ParameterException(
          spec.commandLine(), "--data and --url both say where the rows are; give one of them");
    }
    Audited audited =
        data.isPresent()
            ? beside(data.get(), err)
            : url.isPresent() ? live(url.get(), err) : own(err);
    AuditReport report = audited.report;
    Design of = audited.design;
    if (json) {
      JsonOut.print(document(of, audited), out);
    } else {
      if (data.isEmpty()) { // Of files it was told as soon as it was known.
        report.tables().forEach(table -> print(of, table, out));
      }
      audited.contradicted.forEach(anomaly -> out.println(contradiction(of, anomaly)));
      for (AuditReport.Unread unread : report.unread()) {
        out.println(of.table(unread.table()).name() + "  unread  " + unread.message());
      }
      out.println(report.total() + " offending rows in " + report.rows() + " rows");
    }
    return report.total() > 0 || !report.unread().isEmpty() ? ExitCode.ERRORS : ExitCode.FINE;
  }

  private static void print(Design design, TableAudit audit, PrintWriter out) {
    String table = design.table(audit.table()).name();
    audit.violations().forEach(v -> out.println(table + "  " + v.kind().id() + "  " + v.message()));
    audit.hints().forEach(hint -> out.println(table + "  look  " + hint.message()));
    out.flush();
  }

  /**
   * What was found.
   *
   * @param contradicted what somebody knows of a table and its own rows contradict
   */
  private record Audited(Design design, AuditReport report, List<Anomaly> contradicted) {}

  private Audited own(PrintWriter err) throws IOException, UnreadableFileException {
    Draft draft = design.open(err).draft();
    DesignArgument.note(held(draft, draft.rows().linked().keySet()), err);
    Map<TableId, LinkedFile> files = LinkedFile.of(draft, () -> false);
    AuditReport report =
        Audit.of(
            draft,
            files,
            Clock.systemDefaultZone(),
            new KnownAudit(),
            new Telling(draft.design(), err, false));
    for (LinkedFile file : files.values()) {
      DesignArgument.note(file.problems().stream().map(Object::toString).toList(), err);
    }
    return new Audited(draft.design(), report, Anomalies.contradicted(draft));
  }

  private Audited live(String address, PrintWriter err)
      throws IOException, UnreadableFileException, TargetRefusedException {
    Draft draft = design.open(err).draft();
    LiveAudit audit = LiveAudit.of(draft, live.target(address), Progress.NONE);
    DesignArgument.note(audit.notices(), err);
    return new Audited(draft.design(), audit.report(), List.of());
  }

  /** Rows in a folder beside go by once; how far they are is told every few seconds. */
  private Audited beside(Path folder, PrintWriter err) throws IOException, UnreadableFileException {
    DesignFolder.Beside beside = DesignFolder.beside(design.path(), folder);
    Design of = beside.draft().design();
    DesignArgument.note(held(beside.draft(), beside.rows().keySet()), err);
    AuditReport report =
        Audit.of(
            beside.draft(),
            beside.rows(),
            Clock.systemDefaultZone(),
            Math.min(KEYS_IN_MEMORY, Runtime.getRuntime().maxMemory() / 2),
            new Telling(of, err, !json));
    DesignArgument.note(beside.notices(), err);
    return new Audited(of, report, List.of());
  }

  /**
   * Tells every few seconds how far it is, and what was found in a table as soon as it is known.
   */
  private final class Telling implements Audit.Watch {
    private final Design of;
    private final PrintWriter err;
    private final boolean tells;
    private final AtomicLong told = new AtomicLong(System.nanoTime());

    Telling(Design of, PrintWriter err, boolean tells) {
      this.of = of;
      this.err = err;
      this.tells = tells;
    }

    @Override
    public boolean goesOn(TableId table, long rows) {
      long now = System.nanoTime();
      if (now - told.get() > TELL_NANOS) {
        told.set(now);
        err.println("… " + of.table(table).name() + ", row " + Counts.of(rows));
        err.flush();
      }
      return true;
    }

    @Override
    public void found(TableAudit table) {
      if (tells) {
        print(of, table, spec.commandLine().getOut());
      }
    }
  }

  /** Rows of those tables that do not just go by are told beforehand: they need memory. */
  private static List<String> held(Draft draft, Set<TableId> gone) {
    return Audit.readByOthers(draft).stream()
        .filter(gone::contains)
        .map(draft.design()::table)
        .map(t -> "Other tables read " + t.name() + "; its rows are held in memory.")
        .toList();
  }

  /** No engine refuses such rows, so that they do not offend; but they need a look. */
  private static String contradiction(Design design, Anomaly anomaly) {
    Table table = design.table(anomaly.table());
    List<Integer> rows = anomaly.numbers();
    return table.name()
        + "  look  "
        + anomaly.fact().words(table)
        + ", as somebody said, but rows "
        + String.join(", ", rows.stream().limit(ROWS_NAMED).map(String::valueOf).toList())
        + (rows.size() > ROWS_NAMED ? ", … disagree." : " disagree.");
  }

  private static Map<String, Object> contradicted(Design design, Anomaly anomaly) {
    Table table = design.table(anomaly.table());
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("table", table.name());
    item.put("by", table.namesOf(anomaly.determinant()));
    item.put("decide", table.namesOf(anomaly.dependents()));
    item.put("rows", anomaly.numbers().stream().limit(ROWS_NAMED).toList());
    return item;
  }

  private static Map<String, Object> document(Design design, Audited audited) {
    AuditReport report = audited.report;
    var tables = new ArrayList<Map<String, Object>>();
    for (TableAudit audit : report.tables()) {
      Table table = design.table(audit.table());
      Map<String, Object> item = new LinkedHashMap<>();
      item.put("table", table.name());
      item.put("rows", audit.rows());
      item.put("violations", audit.violations().stream().map(v -> violation(table, v)).toList());
      tables.add(item);
    }
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("tables", tables);
    document.put(
        "contradicted", audited.contradicted.stream().map(a -> contradicted(design, a)).toList());
    document.put("unread", report.unread().stream().map(u -> unread(design, u)).toList());
    document.put("total", report.total());
    return document;
  }

  private static Map<String, Object> unread(Design design, AuditReport.Unread unread) {
    return Map.of("table", design.table(unread.table()).name(), "message", unread.message());
  }

  private static Map<String, Object> violation(Table table, Violation violation) {
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("kind", violation.kind().id());
    item.put("fields", table.namesOf(violation.fields()));
    item.put("constraint", violation.constraint());
    item.put("count", violation.count());
    List<Integer> rows = violation.rows().stream().limit(ROWS_NAMED).toList();
    item.put("rows", rows);
    item.put("message", violation.message());
    return item;
  }
}
