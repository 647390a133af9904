package joiner.discovery;

import joiner.rows.EncodedColumn;
import joiner.rows.EncodedTable;

/**
 * A table as the searches read it: each cell a code, −1 where no other row of the column has the
 * same value. Two cells agree if their codes are equal and not −1.
 */
final class Relation {
  private final int rows;
  private final int[][] codes;
  private final int[] codeCounts;

  /** The same cells row by row, for comparing two rows. */
  private final int[] records;

  private Relation(int rows, int[][] codes, int[] codeCounts) {
    this.rows = rows;
    this.codes = codes;
    this.codeCounts = codeCounts;
    this.records = new int[Math.multiplyExact(rows, codes.length)];
    for (int column = 0; column < codes.length; column++) {
      for (int row = 0; row < rows; row++) {
        records[row * codes.length + column] = codes[column][row];
      }
    }
  }

  /**
   * Encodes a table.
   *
   * @param emptyEqual whether two empty cells agree
   */
  static Relation of(EncodedTable table, boolean emptyEqual) {
    int[][] codes = new int[table.columns().size()][];
    int[] counts = new int[codes.length];
    for (int i = 0; i < codes.length; i++) {
      counts[i] = encode(table.columns().get(i), emptyEqual, codes, i);
    }
    return new Relation(table.rows(), codes, counts);
  }

  private static int encode(EncodedColumn column, boolean emptyEqual, int[][] codes, int place) {
    int[] counts = column.counts();
    int[] renamed = new int[counts.length];
    int used = 0;
    for (int code = 0; code < counts.length; code++) {
      boolean single = counts[code] < 2 || (code == EncodedColumn.EMPTY && !emptyEqual);
      renamed[code] = single ? -1 : used++;
    }
    int[] cells = new int[column.rows()];
    for (int row = 0; row < cells.length; row++) {
      cells[row] = renamed[column.code(row)];
    }
    codes[place] = cells;
    return used;
  }

  int rows() {
    return rows;
  }

  int columns() {
    return codes.length;
  }

  int[] codes(int column) {
    return codes[column];
  }

  /** Codes of a column are below this. */
  int codeCount(int column) {
    return codeCounts[column];
  }

  /** Scratch for {@link Partition#refine} with any column. */
  int[] scratch() {
    int most = 0;
    for (int count : codeCounts) {
      most = Math.max(most, count);
    }
    return new int[most + 1];
  }

  /** Writes the columns in which two rows differ into a set of {@code words} words. */
  void difference(int one, int other, long[] words) {
    java.util.Arrays.fill(words, 0);
    int a = one * codes.length;
    int b = other * codes.length;
    for (int column = 0; column < codes.length; column++) {
      int code = records[a + column];
      if (code < 0 || code != records[b + column]) {
        words[column >> 6] |= 1L << column;
      }
    }
  }
}
