package joiner.model;

/**
 * Identity of a kit. Stays the same when the kit is called otherwise.
 *
 * @param value non-blank text, unique within its design
 */
public record KitId(String value) {
  public KitId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("kit id is blank");
    }
  }

  @Override
  public String toString() {
    return value;
  }
}
