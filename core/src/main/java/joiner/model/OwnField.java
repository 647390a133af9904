package joiner.model;

import java.util.List;
import joiner.expression.Reference;
import joiner.expression.ValueType;

/**
 * A field of the row that a formula is about.
 *
 * @param field which
 * @param name what formulas call it
 * @param type what is known of its values
 */
public record OwnField(FieldId field, String name, ValueType type) implements Reference {
  @Override
  public List<String> path() {
    return List.of(name);
  }

  /** A field as formulas of its table read it. */
  public static OwnField of(Field field) {
    return new OwnField(field.id(), field.name(), field.type().valueType());
  }
}
