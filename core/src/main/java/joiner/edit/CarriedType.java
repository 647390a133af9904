package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;

/** Gives fields types, and those that refer to them the same. */
public final class CarriedType {
  private CarriedType() {}

  /**
   * The changes that give a field a type: those that refer to it follow. One that refers to another
   * field no longer does, for what it holds is said by that one.
   */
  public static List<Edit> of(Design design, Table table, Field field, FieldType type) {
    var edits = new ArrayList<>(Relating.untied(design, table, field));
    edits.addAll(alsoThoseReferring(design, new Referring(table.id(), field.id()), type));
    return edits;
  }

  /**
   * The changes that give the field a size, or the key that it refers to, and all that refer to
   * that.
   */
  public static List<Edit> sized(Design design, Table table, Field field, FieldType type) {
    Referring root = Referring.root(design, new Referring(table.id(), field.id()));
    Field key = design.table(root.table()).field(root.field());
    boolean counted =
        key.type() instanceof FieldType.Counter && type instanceof FieldType.WholeNumber;
    FieldType keys = counted ? new FieldType.Counter(((FieldType.WholeNumber) type).width()) : type;
    return alsoThoseReferring(design, root, keys);
  }

  private static List<Edit> alsoThoseReferring(Design design, Referring key, FieldType type) {
    var edits = new ArrayList<Edit>();
    add(design, key, type, edits);
    for (Referring follower : Referring.to(design, key)) {
      add(design, follower, type.asReferenced(), edits);
    }
    return edits;
  }

  private static void add(Design design, Referring of, FieldType type, List<Edit> edits) {
    Table table = design.table(of.table());
    Field field = table.field(of.field());
    if (!field.type().equals(type)) {
      edits.add(ChangeField.type(table, field, type));
    }
  }
}
