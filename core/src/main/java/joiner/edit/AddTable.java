package joiner.edit;

import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Adds a table with its rows.
 *
 * @param rows those that are held
 * @param link those that stay in a file, if they do; none are held then
 */
public record AddTable(Table table, Rows rows, Optional<LinkedRows> link) implements Edit {
  /** Adds a table whose rows are all held. */
  public AddTable(Table table, Rows rows) {
    this(table, rows, Optional.empty());
  }

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
    SampleRows held = draft.rows().with(table.id(), none -> rows);
    return draft.with(
        draft.design().withTableAdded(table),
        link.map(file -> held.withLink(table.id(), file)).orElse(held));
  }
}
