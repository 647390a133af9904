package joiner.model;

import java.util.List;

/**
 * An index that is there for speed only.
 *
 * @param id stays the same for its whole life
 * @param name what the database gets
 * @param fields one or more, in order
 */
public record Index(IndexId id, String name, List<FieldId> fields) {
  public Index {
    fields = List.copyOf(fields);
    if (fields.isEmpty()) {
      throw new IllegalArgumentException("index " + name + " has no field");
    }
  }

  /** A new one; its id is its name. */
  public Index(String name, List<FieldId> fields) {
    this(new IndexId(name), name, fields);
  }

  public Index withId(IndexId other) {
    return new Index(other, name, fields);
  }

  public Index withFields(List<FieldId> other) {
    return new Index(id, name, other);
  }
}
