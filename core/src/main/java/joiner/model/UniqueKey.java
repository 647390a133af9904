package joiner.model;

import java.util.List;

/**
 * A set of fields whose values together occur once. Rows with an empty part do not count, as in
 * SQL.
 *
 * @param id stays the same for its whole life
 * @param name what the database gets
 * @param fields one or more, in order
 */
public record UniqueKey(KeyId id, String name, List<FieldId> fields) {
  public UniqueKey {
    fields = List.copyOf(fields);
    if (fields.isEmpty()) {
      throw new IllegalArgumentException("unique key " + name + " has no field");
    }
  }

  /** A new one; its id is its name. */
  public UniqueKey(String name, List<FieldId> fields) {
    this(new KeyId(name), name, fields);
  }

  public UniqueKey withId(KeyId other) {
    return new UniqueKey(other, name, fields);
  }

  public UniqueKey withFields(List<FieldId> other) {
    return new UniqueKey(id, name, other);
  }
}
