package joiner.audit;

import java.util.Arrays;

/**
 * Some rows of a table on their way through an audit, column by column: the characters of all cells
 * one after another, and where each cell is. A cell that holds nothing has no characters.
 */
final class CellBatch {
  /** How many rows a batch takes at most. */
  static final int ROWS = 2_048;

  private final int most;
  private final int[][] starts;
  private final int[][] lengths;
  private char[] chars;
  private int filled;
  private int rows;
  private int first;

  /**
   * A batch.
   *
   * @param most how many rows it takes
   */
  CellBatch(int columns, int most) {
    this.most = most;
    starts = new int[columns][most];
    lengths = new int[columns][most];
    chars = new char[8 * columns * most + 16];
  }

  /** Empties it for rows from a number on, counted from 0. */
  void restart(int firstRow) {
    first = firstRow;
    rows = 0;
    filled = 0;
    for (int[] length : lengths) {
      Arrays.fill(length, 0);
    }
  }

  void cell(int column, String text) {
    int length = text.length();
    makeRoom(length);
    text.getChars(0, length, chars, filled);
    end(column, length);
  }

  void cell(int column, char[] from, int offset, int length) {
    makeRoom(length);
    System.arraycopy(from, offset, chars, filled, length);
    end(column, length);
  }

  private void makeRoom(int length) {
    if (filled + length > chars.length) {
      chars = Arrays.copyOf(chars, Math.max(filled + length, 2 * chars.length));
    }
  }

  private void end(int column, int length) {
    starts[column][rows] = filled;
    lengths[column][rows] = length;
    filled += length;
  }

  void endRow() {
    rows++;
  }

  boolean isFull() {
    return rows == most;
  }

  /** How many rows it holds. */
  int rows() {
    return rows;
  }

  /** The number of its first row, from 0. */
  int first() {
    return first;
  }

  /** The characters of all its cells. */
  char[] chars() {
    return chars;
  }

  /** Where the cells of a column begin, by row. */
  int[] starts(int column) {
    return starts[column];
  }

  /** How many characters the cells of a column have, by row. */
  int[] lengths(int column) {
    return lengths[column];
  }

  String text(int column, int row) {
    return new String(chars, starts[column][row], lengths[column][row]);
  }
}
