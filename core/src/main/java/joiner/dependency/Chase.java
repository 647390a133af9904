package joiner.dependency;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The tableau test for a lossless join (Alfred Aho, Catriel Beeri, Jeffrey Ullman, "The theory of
 * joins in relational databases", 1979). One row a part; a dependency makes rows that agree on its
 * left side agree on its right; the join is lossless if a row of distinguished symbols appears.
 */
final class Chase {
  private Chase() {}

  /** Whether joining tables of those parts gives back exactly the table they were cut from. */
  static boolean isLossless(
      int attributes, List<AttributeSet> parts, List<Dependency> dependencies) {
    int[][] tableau = tableau(attributes, parts);
    boolean changed = true;
    while (changed) {
      changed = false;
      for (Dependency dependency : dependencies) {
        changed |= apply(tableau, dependency);
      }
    }
    for (int[] row : tableau) {
      if (Arrays.stream(row).allMatch(symbol -> symbol == 0)) {
        return true;
      }
    }
    return false;
  }

  /** Symbol 0 is the distinguished one of its column; others are numbered by row, from 1. */
  private static int[][] tableau(int attributes, List<AttributeSet> parts) {
    int[][] tableau = new int[parts.size()][attributes];
    for (int row = 0; row < parts.size(); row++) {
      for (int column = 0; column < attributes; column++) {
        tableau[row][column] = parts.get(row).contains(column) ? 0 : row + 1;
      }
    }
    return tableau;
  }

  /** Makes rows that agree on the left agree on the right; linear in the rows but for renaming. */
  private static boolean apply(int[][] tableau, Dependency dependency) {
    int[] from = dependency.from().places().toArray();
    int[] to = dependency.to().places().toArray();
    boolean changed = false;
    Map<List<Integer>, int[]> firstWith = new HashMap<>();
    for (int[] row : tableau) {
      List<Integer> left = Arrays.stream(from).mapToObj(column -> row[column]).toList();
      int[] first = firstWith.putIfAbsent(left, row);
      if (first != null) {
        for (int column : to) {
          changed |= equate(tableau, column, first[column], row[column]);
        }
      }
    }
    return changed;
  }

  private static boolean equate(int[][] tableau, int column, int one, int other) {
    if (one == other) {
      return false;
    }
    int kept = Math.min(one, other);
    int gone = Math.max(one, other);
    for (int[] row : tableau) {
      row[column] = row[column] == gone ? kept : row[column];
    }
    return true;
  }
}
