package joiner.model;

import java.util.List;
import joiner.expression.Reference;
import joiner.expression.ValueType;

/**
 * A field of a row that the row a formula is about leads to, over relationships from child to
 * parent. It has no value where one of them is not there.
 *
 * @param over the relationships, from the row on; at least one
 * @param from the fields of the row itself in which the way begins
 * @param field which field of the row at the end
 * @param path what formulas call it
 * @param type what is known of its values
 */
public record FarField(
    List<RelationshipId> over, List<FieldId> from, FieldId field, List<String> path, ValueType type)
    implements Reference {
  /** The table at the end of the way. */
  public Table table(Design design) {
    return design.table(design.relationship(over.getLast()).parent());
  }

  /** The field at the end of the way. */
  public Field end(Design design) {
    return table(design).field(field);
  }

  public FarField {
    over = List.copyOf(over);
    from = List.copyOf(from);
    path = List.copyOf(path);
    if (over.isEmpty()) {
      throw new IllegalArgumentException(field + " is no field of another row");
    }
  }
}
