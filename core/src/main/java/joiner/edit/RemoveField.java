package joiner.edit;

import java.util.List;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.TableId;

/** Removes a field, its values, and the relationships that stand on it. */
public record RemoveField(TableId table, FieldId field, String label) implements Edit {
  @Override
  public String name() {
    return "remove the field " + label;
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Draft changed = draft;
    List<Relationship> standing =
        draft.design().relationships().stream().filter(r -> r.standsOn(table, field)).toList();
    for (Relationship relationship : standing) {
      changed = new RemoveRelationship(relationship.id(), relationship.name()).apply(changed);
    }
    for (Relationship down : changed.design().childrenOf(table)) {
      changed =
          changed.withDesign(
              changed
                  .design()
                  .withRelationship(down.id(), r -> r.withPicking(r.picking().without(field))));
    }
    boolean last = changed.design().table(table).fieldIds().equals(List.of(field));
    return changed.with(
        changed.design().withTable(table, t -> t.withoutField(field)),
        last ? changed.rows().without(table) : changed.rows().withoutField(table, field));
  }
}
