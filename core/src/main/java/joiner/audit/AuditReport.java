package joiner.audit;

import java.util.List;
import java.util.stream.Stream;
import joiner.model.TableId;

/**
 * What the audit found.
 *
 * @param tables those looked at, in the design's order
 * @param unread tables whose rows could not be read; neither they nor those that refer to them are
 *     among those looked at
 */
public record AuditReport(List<TableAudit> tables, List<Unread> unread) {
  public AuditReport {
    tables = List.copyOf(tables);
    unread = List.copyOf(unread);
  }

  /** What an audit found that could read all rows. */
  public AuditReport(List<TableAudit> tables) {
    this(tables, List.of());
  }

  /**
   * A table whose rows could not be read.
   *
   * @param message says why and what to do
   */
  public record Unread(TableId table, String message) {}

  /** Offending rows of all violations. */
  public long total() {
    return violations().mapToLong(Violation::count).sum();
  }

  /** All violations. */
  public Stream<Violation> violations() {
    return tables.stream().flatMap(table -> table.violations().stream());
  }

  /** How many things are wrong: what rows break, and tables whose rows could not be read. */
  public long wrong() {
    return violations().count() + unread.size();
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
