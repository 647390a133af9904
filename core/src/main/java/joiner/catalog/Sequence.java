package joiner.catalog;

import java.util.Collection;
import java.util.List;
import java.util.Locale;
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
  public static final String PERIOD = "counted_in";

  /** Its column with the last number that was given. */
  public static final String LAST = "last_number";

  /** Numbers in one row. */
  public Sequence(String name, long start) {
    this(name, start, Optional.empty());
  }

  /** Whether a table that was found is one of last numbers, and so none of a design. */
  public static boolean keeps(CatalogTable table) {
    return keeps(table.columns().stream().map(Column::name).toList());
  }

  /** Whether columns are those of such a table. */
  public static boolean keeps(Collection<String> columns) {
    return columns.stream()
        .map(name -> name.toLowerCase(Locale.ROOT))
        .toList()
        .equals(List.of(PERIOD, LAST));
  }

  /** Whether it is a table. */
  public boolean isTable() {
    return soFar.isPresent();
  }
}
