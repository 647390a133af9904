package joiner.model;

/**
 * Identity of an index of a table. Stays the same when the index is renamed.
 *
 * @param value non-blank text, unique within its table
 */
public record IndexId(String value) {
  public IndexId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("index id is blank");
    }
  }

  @Override
  public String toString() {
    return value;
  }
}
