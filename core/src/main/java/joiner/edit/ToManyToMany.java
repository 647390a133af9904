package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Picking;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/**
 * Turns one-to-many into many-to-many: a join table takes the place of the foreign key, and every
 * link that was there becomes one of its rows.
 */
public record ToManyToMany(RelationshipId relationship, String name) implements Edit {
  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Relationship r = design.relationship(relationship);
    Table child = design.table(r.child());
    Table parent = design.table(r.parent());
    requireMovable(draft, r);
    return build(draft, r, child, parent);
  }

  /**
   * Goes on where the fields of a relationship can go because its links are kept elsewhere.
   *
   * @throws EditRefusedException if they are part of a key, of another relationship, or in a file
   */
  static void requireMovable(Draft draft, Relationship r) {
    Table child = draft.design().table(r.child());
    InFile.requireHeld(draft, child.id());
    if (child.primaryKey().isEmpty()) {
      throw new EditRefusedException(
          child.label() + " has no primary key yet; say first what identifies a row.");
    }
    if (child.primaryKey().stream().anyMatch(r.childFields()::contains)) {
      throw new EditRefusedException(
          "The link is part of what identifies "
              + child.label()
              + "; give it a key of its own first.");
    }
    if (draft.design().relationships().stream().anyMatch(other -> standsOnLink(other, r))) {
      throw new EditRefusedException(
          "Another relationship stands on the same fields; remove it first.");
    }
  }

  /** Whether the fields that go are also those of another link, or a key something refers to. */
  private static boolean standsOnLink(Relationship other, Relationship r) {
    boolean asChild =
        !other.id().equals(r.id())
            && other.child().equals(r.child())
            && other.childFields().stream().anyMatch(r.childFields()::contains);
    boolean asParent =
        other.parent().equals(r.child())
            && other.parentFields().stream().anyMatch(r.childFields()::contains);
    return asChild || asParent;
  }

  private static Draft build(Draft draft, Relationship r, Table child, Table parent) {
    List<Field> childSide = linkFields(child, child.primaryKey(), "");
    List<Field> parentSide =
        linkFields(parent, r.parentFields(), child.equals(parent) ? "other_" : "");
    String name = freeName(draft.design(), child.name() + "_" + parent.name());
    Table empty = empty(draft.design(), name, child, parent);
    var toChild =
        side(
            draft.design(),
            ConstraintNaming.reference(name, List.of(child.name())),
            empty.id(),
            childSide,
            child,
            child.primaryKey(),
            ReferentialAction.CASCADE,
            r);
    var toParent =
        side(
            draft.design(),
            ConstraintNaming.reference(
                name,
                child.equals(parent) ? List.of(parent.name(), "other") : List.of(parent.name())),
            empty.id(),
            parentSide,
            parent,
            r.parentFields(),
            r.onDelete() == ReferentialAction.SET_NULL ? ReferentialAction.CASCADE : r.onDelete(),
            r);
    Table join = joining(empty, childSide, parentSide, parent.name(), toChild, toParent);
    Rows links = links(draft, r, child, join.primaryKey());
    Draft untied = untied(draft, r);
    return untied.with(
        untied.design().withTableAdded(join, toChild, toParent),
        untied.rows().with(join.id(), none -> links));
  }

  private static Table joining(
      Table empty,
      List<Field> childSide,
      List<Field> parentSide,
      String parent,
      Relationship toChild,
      Relationship toParent) {
    var fields = new ArrayList<>(childSide);
    fields.addAll(parentSide);
    var index =
        new Index(
            ConstraintNaming.index(empty.name(), List.of(parent)),
            parentSide.stream().map(Field::id).toList());
    return empty
        .withFields(fields)
        .withPrimaryKey(fields.stream().map(Field::id).toList())
        .withIndexes(List.of(index))
        .withKind(new TableKind.Join(toChild.id(), toParent.id()));
  }

  private static Table empty(Design design, String name, Table child, Table parent) {
    String label = child.label() + " " + parent.label().toLowerCase(Locale.ROOT);
    return design.unused(Table.of(name, label, Noun.ofLabel(label))).withArea(child.area());
  }

  private static Draft untied(Draft draft, Relationship r) {
    Draft untied = new RemoveRelationship(r.id(), r.name()).apply(draft);
    for (FieldId field : r.childFields()) {
      untied = new RemoveField(r.child(), field, "").apply(untied);
    }
    return untied;
  }

  private static List<Field> linkFields(Table table, List<FieldId> key, String prefix) {
    return key.stream()
        .map(table::field)
        .map(
            field -> {
              String name = prefix + NamingPolicy.referenceTo(table.name(), field.name());
              return Field.of(name, NamingPolicy.labelFor(name), field.type().asReferenced())
                  .withRequired(true);
            })
        .toList();
  }

  private static Relationship side(
      Design design,
      String name,
      TableId join,
      List<Field> fields,
      Table to,
      List<FieldId> key,
      ReferentialAction onDelete,
      Relationship from) {
    boolean fromChild = to.id().equals(from.child());
    return design.unused(
        new Relationship(
            new RelationshipId(name),
            name,
            join,
            fields.stream().map(Field::id).toList(),
            to.id(),
            key,
            "joins",
            fromChild ? from.childRole() : from.parentRole(),
            false,
            onDelete,
            from.onUpdate(),
            fromChild ? Picking.USUAL : from.picking(),
            Extras.NONE));
  }

  private static Rows links(Draft draft, Relationship r, Table child, List<FieldId> key) {
    Rows rows = draft.rows().of(child.id());
    var links = new ArrayList<List<Optional<String>>>();
    for (int row = 0; row < rows.count(); row++) {
      List<Optional<String>> parent = rows.row(row, r.childFields());
      if (parent.stream().allMatch(Optional::isPresent)) {
        var link = new ArrayList<>(rows.row(row, child.primaryKey()));
        link.addAll(parent);
        links.add(link);
      }
    }
    return Rows.of(key, links);
  }

  private static String freeName(Design design, String name) {
    return NamingPolicy.free(name, design.tables().stream().map(Table::name).toList());
  }
}
