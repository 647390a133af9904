package joiner.rows;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.shape.Marks;

/**
 * How people see what cells hold, where that differs from how it is kept: a file by its kind and
 * size, a text that is kept without its marks with them.
 */
public final class SeenText {
  private SeenText() {}

  /** From what a cell of a field holds to what people see; empty where that is the same. */
  public static Optional<UnaryOperator<String>> of(Field field) {
    if (field.type() instanceof FieldType.Content) {
      return Optional.of(StoredFile::words);
    }
    return field.limits().shown().flatMap(Marks::parted).map(marks -> marks::with);
  }

  /** Those of some fields that people see otherwise than they are kept. */
  public static Map<FieldId, UnaryOperator<String>> of(List<Field> fields) {
    Map<FieldId, UnaryOperator<String>> seen = new HashMap<>();
    fields.forEach(field -> of(field).ifPresent(as -> seen.put(field.id(), as)));
    return Map.copyOf(seen);
  }
}
