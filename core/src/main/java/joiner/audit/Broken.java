package joiner.audit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Rows that break one constraint: how many, which ones first, and what the first of them holds. */
final class Broken {
  private final int most;
  private int[] rows = new int[8];
  private int kept;
  private long count;
  private int first = Integer.MAX_VALUE;
  private @Nullable Object example;

  /**
   * Collects rows.
   *
   * @param most how many are named; all are counted
   */
  Broken(int most) {
    this.most = most;
  }

  /** A row, from 0; rows come in any order, each once. */
  void add(int row) {
    count++;
    if (kept == most && row > rows[0]) {
      return;
    }
    if (kept == most) {
      keepSmaller(row);
      return;
    }
    if (kept == rows.length) {
      rows = Arrays.copyOf(rows, 2 * kept);
    }
    rows[kept++] = row;
    if (kept == most) {
      sortDown();
    }
  }

  /** Where no more are named, the largest stands first. */
  private void sortDown() {
    Arrays.sort(rows, 0, kept);
    for (int i = 0; i < kept / 2; i++) {
      int row = rows[i];
      rows[i] = rows[kept - 1 - i];
      rows[kept - 1 - i] = row;
    }
  }

  private void keepSmaller(int row) {
    rows[0] = row;
    for (int i = 0; i + 1 < kept && rows[i] < rows[i + 1]; i++) {
      int larger = rows[i + 1];
      rows[i + 1] = rows[i];
      rows[i] = larger;
    }
  }

  /** A row with what it holds, which is only asked for where it is the first. */
  void add(int row, Supplier<Object> holds) {
    if (row < first) {
      first = row;
      example = holds.get();
    }
    add(row);
  }

  boolean isEmpty() {
    return count == 0;
  }

  long count() {
    return count;
  }

  /** Numbers of rows, from 1, ascending. */
  List<Integer> numbers() {
    int[] sorted = Arrays.copyOf(rows, kept);
    Arrays.sort(sorted);
    var numbers = new ArrayList<Integer>(kept);
    for (int row : sorted) {
      numbers.add(row + 1);
    }
    return numbers;
  }

  /** What the first row holds. */
  Object example() {
    if (example == null) {
      throw new IllegalStateException("no row came with what it holds");
    }
    return example;
  }
}
