package joiner.model;

/**
 * Identity of a table of a design. Stays the same when the table is renamed.
 *
 * @param value non-blank text, unique within its design
 */
public record TableId(String value) implements Comparable<TableId> {
  public TableId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("table id is blank");
    }
  }

  @Override
  public int compareTo(TableId other) {
    return value.compareTo(other.value);
  }

  @Override
  public String toString() {
    return value;
  }
}
