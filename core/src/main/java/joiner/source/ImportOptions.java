package joiner.source;

import java.util.Map;
import java.util.Set;

/**
 * What of a source becomes part of a design.
 *
 * @param withRows whether its rows come along, or the definition only
 * @param firstNumber where generated keys begin
 * @param area the tables stand in; empty: none
 * @param skippedColumns by the place of the table in the source the places of columns left out
 */
public record ImportOptions(
    boolean withRows, long firstNumber, String area, Map<Integer, Set<Integer>> skippedColumns) {
  /** Everything, keys from 1. */
  public static final ImportOptions ALL = new ImportOptions(true, 1, "", Map.of());

  public ImportOptions {
    skippedColumns = Map.copyOf(skippedColumns);
  }

  /** The same into an area. */
  public ImportOptions into(String other) {
    return new ImportOptions(withRows, firstNumber, other, skippedColumns);
  }

  boolean keeps(int table, int column) {
    return !skippedColumns.getOrDefault(table, Set.of()).contains(column);
  }
}
