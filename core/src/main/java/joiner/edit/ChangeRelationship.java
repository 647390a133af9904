package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.Picking;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;

/** Changes the words or actions of a relationship; no row is touched. */
public record ChangeRelationship(String name, RelationshipId relationship, To to) implements Edit {

  /** What the relationship becomes. */
  public sealed interface To {
    /** The relationship as it becomes. */
    Relationship of(Relationship relationship);
  }

  private record Acting(ReferentialAction onDelete, ReferentialAction onUpdate) implements To {
    @Override
    public Relationship of(Relationship relationship) {
      return relationship.withActions(onDelete, onUpdate);
    }
  }

  private record ParentNeedsChild(boolean needs) implements To {
    @Override
    public Relationship of(Relationship relationship) {
      return relationship.withParentNeedsChild(needs);
    }
  }

  private record Worded(String childRole, String parentRole) implements To {
    @Override
    public Relationship of(Relationship relationship) {
      return relationship.withRoles(childRole, parentRole);
    }
  }

  private record PickedBy(Picking picking) implements To {
    @Override
    public Relationship of(Relationship relationship) {
      return relationship.withPicking(picking);
    }
  }

  /** Says how its parents are picked. */
  public static ChangeRelationship picking(Relationship relationship, Picking picking) {
    return new ChangeRelationship(
        "change what is offered over " + relationship.name(),
        relationship.id(),
        new PickedBy(picking));
  }

  /** Says what deleting a parent row does. */
  public static ChangeRelationship onDelete(Relationship relationship, ReferentialAction action) {
    return actions(
        "change what a delete does to " + relationship.name(),
        relationship,
        action,
        relationship.onUpdate());
  }

  /** Says what deleting a parent row and changing its key do. */
  public static ChangeRelationship actions(
      String name,
      Relationship relationship,
      ReferentialAction onDelete,
      ReferentialAction onUpdate) {
    return new ChangeRelationship(name, relationship.id(), new Acting(onDelete, onUpdate));
  }

  /** Says whether each parent row is meant to have a child row. */
  public static ChangeRelationship parentNeedsChild(Relationship relationship, boolean needs) {
    return new ChangeRelationship(
        "change the reading of " + relationship.name(),
        relationship.id(),
        new ParentNeedsChild(needs));
  }

  /** Gives the relationship other verb phrases. */
  public static ChangeRelationship roles(
      Relationship relationship, String childRole, String parentRole) {
    return new ChangeRelationship(
        "reword " + relationship.name(), relationship.id(), new Worded(childRole, parentRole));
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withDesign(draft.design().withRelationship(relationship, to::of));
  }
}
