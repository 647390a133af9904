package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;

/** Ties two tables by a new field. */
public final class Relating {
  private Relating() {}

  /**
   * The change that gives the child a foreign key to the parent's primary key, of the same type,
   * with an index; optional, so that rows that are there stay valid.
   *
   * @throws EditRefusedException if the parent has no primary key
   */
  public static Edit link(Design design, Table child, Table parent) {
    var edits = new ArrayList<Edit>();
    var key = new ArrayList<FieldId>();
    Table growing = child;
    for (FieldId id : parent.primaryKey()) {
      Field referred = parent.field(id);
      String wanted = NamingPolicy.referenceTo(parent.name(), referred.name());
      String name =
          NamingPolicy.free(
              child.equals(parent) ? "other_" + wanted : wanted, growing.fieldsByName().keySet());
      String label = parent.primaryKey().size() == 1 ? parent.label() : NamingPolicy.labelFor(name);
      Field field = growing.unused(Field.of(name, label, referred.type().asReferenced()));
      growing = growing.withFieldAdded(field);
      key.add(field.id());
      edits.add(new AddField(child.id(), field));
    }
    String name = "relate " + child.label() + " to " + parent.label();
    if (key.isEmpty()) {
      throw new EditRefusedException(
          parent.label() + " has no primary key yet; say first what identifies a row.");
    }
    edits.addAll(tie(design, growing, key, parent, parent.primaryKey()));
    return Edit.all(name, edits);
  }

  /**
   * The change that makes a field that is there refer to the parent's primary key: it gets the type
   * of that key, and a relationship it stood for goes. Values that are no key become orphans.
   *
   * @throws EditRefusedException if the parent is not identified by one field
   */
  public static Edit by(Design design, Table child, Field field, Table parent) {
    if (parent.primaryKey().size() != 1) {
      throw new EditRefusedException(
          parent.primaryKey().isEmpty()
              ? parent.label() + " has no primary key yet; say first what identifies a row."
              : parent.label()
                  + " is identified by "
                  + WordList.and(parent.labelsOf(parent.primaryKey()))
                  + " together, which one field cannot refer to; relate the tables in Connect.");
    }
    var edits = new ArrayList<>(untied(design, child, field));
    FieldType type = parent.field(parent.primaryKey().getFirst()).type().asReferenced();
    if (!type.equals(field.type())) {
      edits.add(ChangeField.type(child, field, type));
    }
    edits.addAll(tie(design, child, List.of(field.id()), parent, parent.primaryKey()));
    return Edit.all("let " + field.label() + " refer to " + parent.label(), edits);
  }

  /** Removes the relationships a field stands for. */
  static List<Edit> untied(Design design, Table child, Field field) {
    return design.parentsOf(child.id()).stream()
        .filter(up -> up.childFields().contains(field.id()))
        .<Edit>map(up -> new RemoveRelationship(up.id(), up.name()))
        .toList();
  }

  /** A relationship by fields that are there, and an index where no key serves as one. */
  static List<Edit> tie(
      Design design, Table child, List<FieldId> fields, Table parent, List<FieldId> parentFields) {
    var edits = new ArrayList<Edit>();
    List<String> names = child.namesOf(fields);
    boolean indexed =
        child.isKey(fields) || child.indexes().stream().anyMatch(i -> i.fields().equals(fields));
    if (!indexed) {
      var index = new Index(ConstraintNaming.index(child.name(), names), fields);
      edits.add(ChangeTable.addIndex(child, index));
    }
    String constraint =
        NamingPolicy.free(
            ConstraintNaming.reference(child.name(), names),
            design.relationships().stream().map(Relationship::name).toList());
    edits.add(
        new AddRelationship(
            Relationship.of(constraint, child.id(), fields, parent.id(), parentFields)));
    return edits;
  }
}
