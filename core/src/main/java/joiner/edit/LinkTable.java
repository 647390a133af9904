package joiner.edit;

import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.TableId;
import joiner.rows.LinkedRows;

/**
 * Lets the rows of a table be those of a file, instead of any it has.
 *
 * @param link the file; none: the table has no rows any more
 */
public record LinkTable(TableId table, String label, Optional<LinkedRows> link) implements Edit {
  @Override
  public String name() {
    return link.map(file -> "read the rows of " + label + " from " + file.fileName())
        .orElse("read the rows of " + label + " no more");
  }

  @Override
  public Draft apply(Draft draft) {
    if (link.isEmpty()) {
      return draft.withRows(draft.rows().without(table));
    }
    if (!draft.design().table(table).fieldIds().containsAll(link.get().fields())) {
      throw new EditRefusedException(
          "The fields of " + label + " are others by now; look at the file again.");
    }
    return draft.withRows(draft.rows().withLink(table, link.get()));
  }
}
