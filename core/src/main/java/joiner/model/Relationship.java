package joiner.model;

import java.util.List;
import java.util.function.Consumer;

/**
 * A foreign key with its meaning. Whether it is one-to-one follows from the child's keys, whether
 * the parent is obligatory from the child's required fields.
 *
 * @param id stays the same for the relationship's whole life
 * @param name what the database gets
 * @param child table that holds the foreign key
 * @param childFields the foreign key, in the order of {@code parentFields}
 * @param parent table referred to
 * @param parentFields a key of the parent
 * @param childRole verb phrase read from the child: "is made by"
 * @param parentRole verb phrase read from the parent: "makes"
 * @param parentNeedsChild whether each parent row is meant to have at least one child row
 * @param onDelete what a delete of the parent row does
 * @param onUpdate what a change of the parent's key does
 * @param picking how people who enter a child row pick its parent
 * @param extras properties kept from a file
 */
public record Relationship(
    RelationshipId id,
    String name,
    TableId child,
    List<FieldId> childFields,
    TableId parent,
    List<FieldId> parentFields,
    String childRole,
    String parentRole,
    boolean parentNeedsChild,
    ReferentialAction onDelete,
    ReferentialAction onUpdate,
    Picking picking,
    Extras extras) {

  public Relationship {
    childFields = List.copyOf(childFields);
    parentFields = List.copyOf(parentFields);
    if (childFields.isEmpty() || childFields.size() != parentFields.size()) {
      throw new IllegalArgumentException(
          "relationship " + name + " pairs " + childFields + " with " + parentFields);
    }
  }

  /** A relationship that refuses deletes of parents in use, with plain words for its roles. */
  public static Relationship of(
      String name,
      TableId child,
      List<FieldId> childFields,
      TableId parent,
      List<FieldId> parentFields) {
    return new Relationship(
        new RelationshipId(name),
        name,
        child,
        childFields,
        parent,
        parentFields,
        "belongs to",
        "has",
        false,
        ReferentialAction.NO_ACTION,
        ReferentialAction.NO_ACTION,
        Picking.USUAL,
        Extras.NONE);
  }

  /** What a relationship consists of, while another is made of it. */
  private static final class Parts {
    RelationshipId id;
    String name;
    TableId child;
    List<FieldId> childFields;
    TableId parent;
    List<FieldId> parentFields;
    String childRole;
    String parentRole;
    boolean parentNeedsChild;
    ReferentialAction onDelete;
    ReferentialAction onUpdate;
    Picking picking;
    Extras extras;

    Parts(Relationship relationship) {
      id = relationship.id;
      name = relationship.name;
      child = relationship.child;
      childFields = relationship.childFields;
      parent = relationship.parent;
      parentFields = relationship.parentFields;
      childRole = relationship.childRole;
      parentRole = relationship.parentRole;
      parentNeedsChild = relationship.parentNeedsChild;
      onDelete = relationship.onDelete;
      onUpdate = relationship.onUpdate;
      picking = relationship.picking;
      extras = relationship.extras;
    }
  }

  private Relationship with(Consumer<Parts> change) {
    var parts = new Parts(this);
    change.accept(parts);
    return new Relationship(
        parts.id,
        parts.name,
        parts.child,
        parts.childFields,
        parts.parent,
        parts.parentFields,
        parts.childRole,
        parts.parentRole,
        parts.parentNeedsChild,
        parts.onDelete,
        parts.onUpdate,
        parts.picking,
        parts.extras);
  }

  /** Whether child and parent are the same table. */
  public boolean isSelfReference() {
    return child.equals(parent);
  }

  /** Whether a field of a table is one of those it pairs, on either side. */
  public boolean standsOn(TableId table, FieldId field) {
    return child.equals(table) && childFields.contains(field)
        || parent.equals(table) && parentFields.contains(field);
  }

  public Relationship withRoles(String otherChildRole, String otherParentRole) {
    return with(
        parts -> {
          parts.childRole = otherChildRole;
          parts.parentRole = otherParentRole;
        });
  }

  public Relationship withActions(ReferentialAction delete, ReferentialAction update) {
    return with(
        parts -> {
          parts.onDelete = delete;
          parts.onUpdate = update;
        });
  }

  public Relationship withParentNeedsChild(boolean other) {
    return with(parts -> parts.parentNeedsChild = other);
  }

  public Relationship withPicking(Picking other) {
    return with(parts -> parts.picking = other);
  }

  public Relationship withExtras(Extras other) {
    return with(parts -> parts.extras = other);
  }

  public Relationship withId(RelationshipId other) {
    return with(parts -> parts.id = other);
  }

  /** The same relationship between other tables or fields. */
  public Relationship withEnds(
      TableId otherChild,
      List<FieldId> otherChildFields,
      TableId otherParent,
      List<FieldId> otherParentFields) {
    return with(
        parts -> {
          parts.child = otherChild;
          parts.childFields = otherChildFields;
          parts.parent = otherParent;
          parts.parentFields = otherParentFields;
        });
  }
}
