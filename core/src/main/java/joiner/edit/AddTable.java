package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.rows.Rows;

/** Adds a table with its rows; an area it names is made if it is not there. */
public record AddTable(Table table, Rows rows) implements Edit {
  @Override
  public String name() {
    return "add the table " + table.label();
  }

  @Override
  public Draft apply(Draft draft) {
    boolean taken =
        draft.design().find(table.id()).isPresent()
            || draft.design().tableNamed(table.name()).isPresent();
    if (taken) {
      throw new EditRefusedException(
          "There is a table " + table.name() + " already; give this one another name.");
    }
    return draft.with(
        draft.design().withTableAdded(table), draft.rows().with(table.id(), none -> rows));
  }
}
