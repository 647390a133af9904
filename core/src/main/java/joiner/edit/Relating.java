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

/** Ties two tables by fields that are there. */
public final class Relating {
  private Relating() {}

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
    String constraint = constraint(design, child, fields);
    return tie(child, Relationship.of(constraint, child.id(), fields, parent.id(), parentFields));
  }

  /** A relationship whose fields are there, and an index where no key serves as one. */
  static List<Edit> tie(Table child, Relationship made) {
    List<FieldId> fields = made.childFields();
    var edits = new ArrayList<Edit>();
    boolean indexed =
        child.isKey(fields) || child.indexes().stream().anyMatch(i -> i.fields().equals(fields));
    if (!indexed) {
      String name = ConstraintNaming.index(child.name(), child.namesOf(fields));
      edits.add(ChangeTable.addIndex(child, new Index(name, fields)));
    }
    edits.add(new AddRelationship(made));
    return edits;
  }

  /** A name for a relationship by fields of a table that no other has. */
  static String constraint(Design design, Table child, List<FieldId> fields) {
    return NamingPolicy.free(
        ConstraintNaming.reference(child.name(), child.namesOf(fields)),
        design.relationships().stream().map(Relationship::name).toList());
  }
}
