package joiner.model;

/**
 * Identity of a unique key of a table. Stays the same when the unique key is renamed.
 *
 * @param value non-blank text, unique within its table
 */
public record KeyId(String value) {
  public KeyId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("unique key id is blank");
    }
  }

  @Override
  public String toString() {
    return value;
  }
}
