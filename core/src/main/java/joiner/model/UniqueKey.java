package joiner.model;

import java.util.List;

/**
 * A set of fields whose values together occur once. Rows with an empty part do not count, as in
 * SQL.
 *
 * @param name what the database gets
 * @param fields one or more, in order
 */
public record UniqueKey(String name, List<FieldId> fields) {
  public UniqueKey {
    fields = List.copyOf(fields);
    if (fields.isEmpty()) {
      throw new IllegalArgumentException("unique key " + name + " has no field");
    }
  }
}
