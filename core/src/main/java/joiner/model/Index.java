package joiner.model;

import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * An index that is there for speed only.
 *
 * @param id stays the same for its whole life
 * @param name what the database gets
 * @param fields one or more, in order
 * @param descending those of the fields whose values stand from the greatest down
 */
public record Index(IndexId id, String name, List<FieldId> fields, Set<FieldId> descending) {
  public Index {
    fields = List.copyOf(fields);
    descending =
        fields.stream().filter(descending::contains).collect(Collectors.toUnmodifiableSet());
    if (fields.isEmpty()) {
      throw new IllegalArgumentException("index " + name + " has no field");
    }
  }

  /** One whose values stand from the least up. */
  public Index(IndexId id, String name, List<FieldId> fields) {
    this(id, name, fields, Set.of());
  }

  /** A new one; its id is its name. */
  public Index(String name, List<FieldId> fields) {
    this(new IndexId(name), name, fields);
  }

  public Index withId(IndexId other) {
    return new Index(other, name, fields, descending);
  }

  /** The same of other fields, each in the place and the direction of the one it stands for. */
  public Index under(UnaryOperator<FieldId> other) {
    return new Index(
        id,
        name,
        fields.stream().map(other).toList(),
        descending.stream().map(other).collect(Collectors.toUnmodifiableSet()));
  }

  public Index withFields(List<FieldId> other) {
    return new Index(id, name, other, descending);
  }

  public Index withDescending(Set<FieldId> other) {
    return new Index(id, name, fields, other);
  }
}
