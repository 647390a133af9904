package joiner.model;

/**
 * Identity of an area of a design. Stays the same when the area is renamed.
 *
 * @param value non-blank text, unique within its design
 */
public record AreaId(String value) {
  public AreaId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("area id is blank");
    }
  }

  @Override
  public String toString() {
    return value;
  }
}
