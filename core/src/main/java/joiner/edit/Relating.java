package joiner.edit;

import java.util.ArrayList;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;

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
    String constraint =
        NamingPolicy.free(
            ConstraintNaming.reference(child.name(), growing.namesOf(key)),
            design.relationships().stream().map(Relationship::name).toList());
    var index = new Index(ConstraintNaming.index(child.name(), growing.namesOf(key)), key);
    edits.add(ChangeTable.addIndex(growing, index));
    edits.add(
        new AddRelationship(
            Relationship.of(constraint, child.id(), key, parent.id(), parent.primaryKey())));
    return Edit.all(name, edits);
  }
}
