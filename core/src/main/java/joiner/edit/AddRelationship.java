package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Relationship;

/** Ties two tables by fields that are there; the relationship gets an id of its own. */
public record AddRelationship(Relationship relationship) implements Edit {
  @Override
  public String name() {
    return "add the relationship " + relationship.name();
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    return draft.withDesign(design.withRelationshipAdded(design.unused(relationship)));
  }
}
