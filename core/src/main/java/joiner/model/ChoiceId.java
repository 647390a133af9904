package joiner.model;

/**
 * Identity of one of a field's choices. Stays the same when the choice is called otherwise.
 *
 * @param value non-blank text, unique within its field
 */
public record ChoiceId(String value) {
  public ChoiceId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("choice id is blank");
    }
  }

  @Override
  public String toString() {
    return value;
  }
}
