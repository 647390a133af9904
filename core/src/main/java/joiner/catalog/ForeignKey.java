package joiner.catalog;

import java.util.List;
import joiner.model.ReferentialAction;

/**
 * A foreign key.
 *
 * @param columns in the order of {@code parentColumns}
 * @param late whether it is declared only when all tables and their rows are there
 */
public record ForeignKey(
    String name,
    List<String> columns,
    String parent,
    List<String> parentColumns,
    ReferentialAction onDelete,
    ReferentialAction onUpdate,
    boolean late) {
  public ForeignKey {
    columns = List.copyOf(columns);
    parentColumns = List.copyOf(parentColumns);
  }

  /** The same, declared with its table or later. */
  public ForeignKey declared(boolean later) {
    return new ForeignKey(name, columns, parent, parentColumns, onDelete, onUpdate, later);
  }
}
