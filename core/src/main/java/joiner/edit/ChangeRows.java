package joiner.edit;

import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/** Changes sample rows of one table. */
public record ChangeRows(String name, TableId table, UnaryOperator<Rows> change) implements Edit {

  /** Changes one cell. */
  public static ChangeRows cell(Table table, int row, Field field, Optional<String> text) {
    return new ChangeRows(
        "change " + field.label() + " in row " + (row + 1),
        table.id(),
        rows -> rows.withCell(row, field.id(), text));
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withRows(draft.rows().with(table, change));
  }
}
