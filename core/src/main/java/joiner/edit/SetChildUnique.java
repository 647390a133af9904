package joiner.edit;

import java.util.ArrayList;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;

/**
 * Turns one-to-many into one-to-one or back, by the keys of the child. Where the foreign key is
 * also the primary key, one-to-many gives the child a counter of its own; rows are numbered from 1.
 */
public record SetChildUnique(RelationshipId relationship, String name, boolean unique)
    implements Edit {
  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Relationship r = draft.design().relationship(relationship);
    Table child = draft.design().table(r.child());
    if (unique) {
      return SetUnique.of(child, r.childFields(), true).apply(draft);
    }
    var freed =
        child.withUniqueKeys(
            child.uniqueKeys().stream()
                .filter(key -> !r.childFields().containsAll(key.fields()))
                .toList());
    Draft changed = draft.withDesign(draft.design().withTable(child.id(), t -> freed));
    boolean identifying =
        !child.primaryKey().isEmpty() && r.childFields().containsAll(child.primaryKey());
    return identifying ? withCounter(changed, r, freed) : changed;
  }

  private static Draft withCounter(Draft draft, Relationship r, Table child) {
    boolean referred =
        draft.design().relationships().stream()
            .anyMatch(
                other ->
                    other.parent().equals(child.id())
                        && other.parentFields().equals(child.primaryKey()));
    if (referred) {
      throw new EditRefusedException(
          "Other tables refer to the key of "
              + child.label()
              + "; give it a key of its own first.");
    }
    Field counter = Counters.fieldFor(child);
    var edits = new ArrayList<Edit>();
    edits.add(ChangeTable.counted(child, counter));
    edits.add(ChangeRows.numbered(child, counter.id()));
    for (FieldId field : r.childFields()) {
      edits.add(ChangeField.required(child, child.field(field), true));
    }
    return new Several("give " + child.label() + " a counter", edits).apply(draft);
  }
}
