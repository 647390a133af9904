package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.RelationshipId;

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
