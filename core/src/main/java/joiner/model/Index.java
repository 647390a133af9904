package joiner.model;

import java.util.List;

/**
 * An index that is there for speed only.
 *
 * @param name what the database gets
 * @param fields one or more, in order
 */
public record Index(String name, List<FieldId> fields) {
  public Index {
    fields = List.copyOf(fields);
    if (fields.isEmpty()) {
      throw new IllegalArgumentException("index " + name + " has no field");
    }
  }
}
