package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;

/**
 * Takes the rows that stay in a file into the design.
 *
 * @param link the file as it was read
 * @param rows what was read from it
 */
public record HoldRows(TableId table, String label, LinkedRows link, Rows rows) implements Edit {
  @Override
  public String name() {
    return "take the rows of " + label + " into the design";
  }

  @Override
  public Draft apply(Draft draft) {
    if (!draft.rows().linked().getOrDefault(table, link.in("", 0)).equals(link)) {
      throw new EditRefusedException(
          "The rows of " + label + " are read otherwise by now; take them in again.");
    }
    return draft.withRows(draft.rows().without(table).with(table, none -> rows));
  }
}
