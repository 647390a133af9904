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
import java.util.concurrent.Callable;
import java.util.concurrent.atomic.AtomicLong;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
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
    Design design = audited.design;
    if (json) {
      JsonOut.print(document(design, report), out);
    } else {
      if (data.isEmpty()) { // Of files it was told as soon as it was known.
        report.tables().forEach(table -> print(design, table, out));
      }
      out.println(report.total() + " offending rows in " + report.rows() + " rows");
    }
    return report.total() > 0 ? ExitCode.ERRORS : ExitCode.FINE;
  }

  private static void print(Design design, TableAudit audit, PrintWriter out) {
    String table = design.table(audit.table()).name();
    audit.violations().forEach(v -> out.println(table + "  " + v.kind().id() + "  " + v.message()));
    audit.hints().forEach(hint -> out.println(table + "  look  " + hint.message()));
    out.flush();
  }

  private record Audited(Design design, AuditReport report) {}

  private Audited own(PrintWriter err) throws IOException, UnreadableFileException {
    Draft draft = design.open(err).draft();
    return new Audited(draft.design(), Audit.of(draft, Clock.systemDefaultZone()));
  }

  private Audited live(String address, PrintWriter err)
      throws IOException, UnreadableFileException, TargetRefusedException {
    Draft draft = design.open(err).draft();
    LiveAudit audit = LiveAudit.of(draft, live.target(address), Progress.NONE);
    DesignArgument.note(audit.notices(), err);
    return new Audited(draft.design(), audit.report());
  }

  /** Rows in a folder beside go by once; how far they are is told every few seconds. */
  private Audited beside(Path folder, PrintWriter err) throws IOException, UnreadableFileException {
    DesignFolder.Beside beside = DesignFolder.beside(design.path(), folder);
    Design of = beside.draft().design();
    DesignArgument.note(held(beside.draft()), err);
    var told = new AtomicLong(System.nanoTime());
    AuditReport report =
        Audit.of(
            beside.draft(),
            beside.rows(),
            Clock.systemDefaultZone(),
            Math.min(KEYS_IN_MEMORY, Runtime.getRuntime().maxMemory() / 2),
            new Audit.Watch() {
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
                if (!json) {
                  print(of, table, spec.commandLine().getOut());
                }
              }
            });
    DesignArgument.note(beside.notices(), err);
    return new Audited(of, report);
  }

  /** Rows that do not just go by are told beforehand: they need memory. */
  private static List<String> held(Draft draft) {
    return Audit.readByOthers(draft).stream()
        .map(draft.design()::table)
        .map(t -> "Rules of other tables read " + t.name() + "; its rows are held in memory.")
        .toList();
  }

  private static Map<String, Object> document(Design design, AuditReport report) {
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
    document.put("total", report.total());
    return document;
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
