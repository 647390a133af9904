package joiner.edit;

import joiner.model.Relationship;
import joiner.rows.Draft;

/** Ties two tables by fields that are there. */
public record AddRelationship(Relationship relationship) implements Edit {
  @Override
  public String name() {
    return "add the relationship " + relationship.name();
  }

  @Override
  public Draft apply(Draft draft) {
    if (draft.design().find(relationship.id()).isPresent()) {
      throw new EditRefusedException(
          "There is a relationship "
              + relationship.name()
              + " already; give this one another name.");
    }
    return draft.withDesign(draft.design().withRelationshipAdded(relationship));
  }
}
