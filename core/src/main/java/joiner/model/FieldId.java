package joiner.model;

/**
 * Identity of a field within its table. Stays the same when the field is renamed.
 *
 * @param value non-blank text, unique within its table
 */
public record FieldId(String value) implements Comparable<FieldId> {
  public FieldId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("field id is blank");
    }
  }

  @Override
  public int compareTo(FieldId other) {
    return value.compareTo(other.value);
  }

  @Override
  public String toString() {
    return value;
  }
}
