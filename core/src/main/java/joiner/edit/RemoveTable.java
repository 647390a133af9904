package joiner.edit;

import java.util.List;
import joiner.meaning.Draft;
import joiner.model.Relationship;
import joiner.model.TableId;

/** Removes a table, its rows and the relationships that touch it. */
public record RemoveTable(TableId table, String label) implements Edit {
  @Override
  public String name() {
    return "remove the table " + label;
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Draft changed = draft;
    List<Relationship> touching =
        draft.design().relationships().stream()
            .filter(r -> r.child().equals(table) || r.parent().equals(table))
            .toList();
    for (Relationship relationship : touching) {
      changed = new RemoveRelationship(relationship.id(), relationship.name()).apply(changed);
    }
    return changed.with(changed.design().withoutTable(table), changed.rows().without(table));
  }
}
