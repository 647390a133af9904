package joiner.rows;

import java.util.Map;
import joiner.model.Design;
import joiner.model.TableId;

/**
 * A design together with its sample rows: what is open, what an edit changes, what is saved. Only
 * tables of the design have rows, and a table without fields has none.
 */
public record Draft(Design design, SampleRows rows) {
  public Draft {
    for (Map.Entry<TableId, Rows> entry : rows.byTable().entrySet()) {
      if (design.find(entry.getKey()).isEmpty()) {
        throw new IllegalArgumentException("there are rows of unknown table " + entry.getKey());
      }
      if (entry.getValue().count() > 0 && design.table(entry.getKey()).fields().isEmpty()) {
        throw new IllegalArgumentException(
            "there are rows of table " + entry.getKey() + ", which has no fields");
      }
    }
  }

  /** The same rows under another design. */
  public Draft withDesign(Design other) {
    return new Draft(other, rows);
  }

  /** The same design with other rows. */
  public Draft withRows(SampleRows other) {
    return new Draft(design, other);
  }
}
