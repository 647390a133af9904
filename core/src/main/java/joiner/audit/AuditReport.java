package joiner.audit;

import java.util.List;
import java.util.stream.Stream;

/** What the audit found, table by table in the design's order. */
public record AuditReport(List<TableAudit> tables) {
  public AuditReport {
    tables = List.copyOf(tables);
  }

  /** Offending rows of all violations. */
  public long total() {
    return violations().mapToLong(Violation::count).sum();
  }

  /** All violations. */
  public Stream<Violation> violations() {
    return tables.stream().flatMap(table -> table.violations().stream());
  }

  /** All hints. */
  public Stream<Hint> hints() {
    return tables.stream().flatMap(table -> table.hints().stream());
  }

  /** Number of rows looked at. */
  public long rows() {
    return tables.stream().mapToLong(TableAudit::rows).sum();
  }
}
