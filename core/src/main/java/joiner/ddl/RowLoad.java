package joiner.ddl;

import java.util.List;
import joiner.model.TableId;

/**
 * Rows that go in by a statement with a parameter for each field.
 *
 * @param rows their places among the table's sample rows, from 0, in the order in which they go in
 */
public record RowLoad(TableId table, List<Integer> rows) {
  public RowLoad {
    rows = List.copyOf(rows);
  }
}
