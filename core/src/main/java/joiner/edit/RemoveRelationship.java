package joiner.edit;

import joiner.model.RelationshipId;
import joiner.rows.Draft;

/**
 * Unties two tables; the fields and their values stay. A join table that loses a side becomes
 * plain.
 */
public record RemoveRelationship(RelationshipId relationship, String label) implements Edit {
  @Override
  public String name() {
    return "remove the relationship " + label;
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withDesign(draft.design().withoutRelationship(relationship));
  }
}
