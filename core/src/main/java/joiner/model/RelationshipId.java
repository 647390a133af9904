package joiner.model;

/**
 * Identity of a relationship of a design. Stays the same when the relationship is renamed.
 *
 * @param value non-blank text, unique within its design
 */
public record RelationshipId(String value) implements Comparable<RelationshipId> {
  public RelationshipId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("relationship id is blank");
    }
  }

  @Override
  public int compareTo(RelationshipId other) {
    return value.compareTo(other.value);
  }

  @Override
  public String toString() {
    return value;
  }
}
