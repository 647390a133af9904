package joiner.catalog;

/**
 * What somebody may do with a table.
 *
 * @param to whom, as it stands in SQL
 * @param privilege the words of the SQL standard, as SELECT
 * @param on name of the table
 * @param passedOn whether they may grant it to others
 */
public record Grant(String to, String privilege, String on, boolean passedOn) {
  /** The same on another table. */
  public Grant on(String other) {
    return new Grant(to, privilege, other, passedOn);
  }
}
