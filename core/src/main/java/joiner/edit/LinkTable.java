package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.TableId;
import joiner.rows.LinkedRows;

/** Lets the rows of a table be those of a file, instead of any it has. */
public record LinkTable(TableId table, String label, LinkedRows link) implements Edit {
  @Override
  public String name() {
    return "read the rows of " + label + " from " + link.fileName();
  }

  @Override
  public Draft apply(Draft draft) {
    if (!draft.design().table(table).fieldIds().containsAll(link.fields())) {
      throw new EditRefusedException(
          "The fields of " + label + " are others by now; look at the file again.");
    }
    return draft.withRows(draft.rows().withLink(table, link));
  }
}
