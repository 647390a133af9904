package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.TableId;

/** Adds a field at the end of a table; rows have no value in it yet. */
public record AddField(TableId table, Field field) implements Edit {
  @Override
  public String name() {
    return "add the field " + field.label();
  }

  @Override
  public Draft apply(Draft draft) {
    var existing = draft.design().table(table);
    if (existing.hasField(field.id()) || existing.fieldNamed(field.name()).isPresent()) {
      throw new EditRefusedException(
          "There is a field "
              + field.name()
              + " in "
              + existing.label()
              + " already; give this one another name.");
    }
    return draft.withDesign(draft.design().withTable(table, t -> t.withFieldAdded(field)));
  }
}
