package joiner.discovery;

import java.util.List;

/**
 * The values of some columns are found in others: perhaps a reference.
 *
 * @param fromTable place of the table in what was searched, from 0
 * @param from its columns by place
 * @param inTable place of the other table
 * @param in its columns, in the same order
 * @param rows rows that have a value in all of {@code from}
 * @param missing how many of those have no match
 * @param orphans the first few values without a match
 * @param as how the values had to be read to match
 * @param key whether the values of {@code in} are different in all rows, so that it can be referred
 *     to
 */
public record FoundInclusion(
    int fromTable,
    List<Integer> from,
    int inTable,
    List<Integer> in,
    long rows,
    long missing,
    List<String> orphans,
    Reading as,
    boolean key) {
  public FoundInclusion {
    from = List.copyOf(from);
    in = List.copyOf(in);
    orphans = List.copyOf(orphans);
  }

  /** How values are compared. */
  public enum Reading {
    /** As they stand in the source. */
    EXACT,
    /** Without blanks around them. */
    TRIMMED,
    /** Without blanks around them and in lower case. */
    FOLDED
  }

  /** The share of rows that match, 0 to 1. */
  public double coverage() {
    return rows == 0 ? 0 : 1 - (double) missing / rows;
  }
}
