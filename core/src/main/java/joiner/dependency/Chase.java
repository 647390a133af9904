package joiner.dependency;

import java.util.List;

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
      if (java.util.Arrays.stream(row).allMatch(symbol -> symbol == 0)) {
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

  private static boolean apply(int[][] tableau, Dependency dependency) {
    boolean changed = false;
    for (int one = 0; one < tableau.length; one++) {
      for (int other = one + 1; other < tableau.length; other++) {
        if (agree(tableau[one], tableau[other], dependency.from())) {
          for (int column : dependency.to().places().toArray()) {
            changed |= equate(tableau, column, tableau[one][column], tableau[other][column]);
          }
        }
      }
    }
    return changed;
  }

  private static boolean agree(int[] one, int[] other, AttributeSet columns) {
    return columns.places().allMatch(column -> one[column] == other[column]);
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
