package joiner.model;

/**
 * Identity of a group of fields. Stays the same when the group is called otherwise.
 *
 * @param value non-blank text, unique within its table
 */
public record GroupId(String value) {
  public GroupId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("group id is blank");
    }
  }

  @Override
  public String toString() {
    return value;
  }
}
