package joiner.audit;

import java.util.List;
import joiner.model.TableId;

/**
 * What the audit of one table found.
 *
 * @param rows how many rows were looked at
 */
public record TableAudit(TableId table, int rows, List<Violation> violations, List<Hint> hints) {
  public TableAudit {
    violations = List.copyOf(violations);
    hints = List.copyOf(hints);
  }
}
