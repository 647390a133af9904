package joiner.discovery;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import joiner.dependency.AttributeSet;
import joiner.rows.EncodedTable;

/** Dependencies and keys by trying every set of columns on every row, without any cleverness. */
final class BruteForce {
  private BruteForce() {}

  static FoundDependencies search(EncodedTable table, boolean emptyEqual, double maxError) {
    var dependencies = new ArrayList<FoundDependency>();
    var keys = new ArrayList<AttributeSet>();
    int most = (int) Math.floor(maxError * table.rows() + 1e-9);
    for (AttributeSet set : subsets(table.columns().size())) {
      for (int column = 0; column < table.columns().size(); column++) {
        int dependent = column;
        int exceptions = exceptions(table, set, column, emptyEqual);
        if (!set.contains(column)
            && exceptions <= most
            && dependencies.stream()
                .noneMatch(d -> d.dependent() == dependent && set.containsAll(d.determinant()))) {
          dependencies.add(new FoundDependency(set, column, exceptions));
        }
      }
      if (keys.stream().noneMatch(set::containsAll)
          && exceptions(table, set, -1, emptyEqual) == 0) {
        keys.add(set);
      }
    }
    return new FoundDependencies(table.rows(), dependencies.stream().sorted().toList(), keys, true);
  }

  /** All sets of columns, smaller ones first. */
  private static List<AttributeSet> subsets(int columns) {
    var all = new ArrayList<AttributeSet>();
    for (int bits = 0; bits < 1 << columns; bits++) {
      AttributeSet set = AttributeSet.EMPTY;
      for (int column = 0; column < columns; column++) {
        set = (bits >> column & 1) == 1 ? set.with(column) : set;
      }
      all.add(set);
    }
    return all.stream().sorted().toList();
  }

  /** Rows outside the most frequent value of their group; column −1 is the row itself. */
  private static int exceptions(
      EncodedTable table, AttributeSet set, int column, boolean emptyEqual) {
    Map<List<String>, Map<String, Integer>> groups = new HashMap<>();
    for (int row = 0; row < table.rows(); row++) {
      var key = new ArrayList<String>();
      for (int place : set.places().toArray()) {
        key.add(cell(table, row, place, emptyEqual));
      }
      String value = column < 0 ? "row " + row : cell(table, row, column, emptyEqual);
      groups.computeIfAbsent(key, k -> new HashMap<>()).merge(value, 1, Integer::sum);
    }
    return groups.values().stream()
        .mapToInt(
            counts ->
                counts.values().stream().mapToInt(i -> i).sum()
                    - counts.values().stream().mapToInt(i -> i).max().orElse(0))
        .sum();
  }

  private static String cell(EncodedTable table, int row, int column, boolean emptyEqual) {
    String text = table.text(row, column);
    return text.isEmpty() && !emptyEqual ? "\u0000 empty in row " + row : text;
  }
}
