package joiner.edit;

import java.util.function.UnaryOperator;
import joiner.meaning.Draft;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;

/** Changes the words or actions of a relationship; no row is touched. */
public record ChangeRelationship(
    String name, RelationshipId relationship, UnaryOperator<Relationship> change) implements Edit {

  /** Says what deleting a parent row does. */
  public static ChangeRelationship onDelete(Relationship relationship, ReferentialAction action) {
    return new ChangeRelationship(
        "change what a delete does to " + relationship.name(),
        relationship.id(),
        r -> r.withActions(action, r.onUpdate()));
  }

  /** Says whether each parent row is meant to have a child row. */
  public static ChangeRelationship parentNeedsChild(Relationship relationship, boolean needs) {
    return new ChangeRelationship(
        "change the reading of " + relationship.name(),
        relationship.id(),
        r -> r.withParentNeedsChild(needs));
  }

  /** Gives the relationship other verb phrases. */
  public static ChangeRelationship roles(
      Relationship relationship, String childRole, String parentRole) {
    return new ChangeRelationship(
        "reword " + relationship.name(),
        relationship.id(),
        r -> r.withRoles(childRole, parentRole));
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withDesign(draft.design().withRelationship(relationship, change));
  }
}
