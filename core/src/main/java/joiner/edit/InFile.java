package joiner.edit;

import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.TableId;
import joiner.rows.LinkedRows;

/** Refuses changes of rows that stay in a file. */
public final class InFile {
  private InFile() {}

  /**
   * Goes on where the rows of a table are held.
   *
   * @throws EditRefusedException if they stay in a file
   */
  public static void requireHeld(Draft draft, TableId table) {
    Optional<LinkedRows> link = draft.rows().link(table);
    if (link.isPresent()) {
      throw new EditRefusedException(
          "The rows of "
              + draft.design().table(table).label()
              + " stay in "
              + link.get().fileName()
              + ", which Joiner does not change; take them into the design first.");
    }
  }
}
