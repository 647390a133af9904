package joiner.catalog;

import java.util.Optional;

/**
 * A source of numbers, each greater by one than the one before.
 *
 * @param start the first of them
 * @param soFar where numbers are counted in each of several periods, in a table that has a line for
 *     each: the statement that brings in what rows have already
 */
public record Sequence(String name, long start, Optional<String> soFar) {
  /** What the first column of such a table is called. */
  public static final String PERIOD = "period";

  /** Its column with the last number that was given. */
  public static final String LAST = "last_number";

  /** Numbers in one row. */
  public Sequence(String name, long start) {
    this(name, start, Optional.empty());
  }

  /** Whether it is a table. */
  public boolean isTable() {
    return soFar.isPresent();
  }
}
