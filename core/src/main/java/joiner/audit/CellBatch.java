package joiner.audit;

import java.util.Arrays;

/**
 * Some rows of a table on their way through an audit, column by column: the characters of all cells
 * one after another, and where each cell is. A cell that holds nothing has no characters.
 */
final class CellBatch {
  /** How many rows a batch takes at most. */
  static final int ROWS = 1_024;

  private final int most;

  /** By column and row where a cell begins, and below that how long it is. */
  private final long[][] places;

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
    places = new long[columns][most];
    chars = new char[8 * columns * most + 16];
  }

  /** Empties it for rows from a number on, counted from 0. */
  void restart(int firstRow) {
    first = firstRow;
    rows = 0;
    filled = 0;
    for (long[] place : places) {
      Arrays.fill(place, 0);
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
    char[] to = chars;
    int at = filled;
    // Cells are short; a loop is quicker than a call.
    for (int i = offset; i < offset + length; i++) {
      to[at++] = from[i];
    }
    end(column, length);
  }

  private void makeRoom(int length) {
    if (filled + length > chars.length) {
      chars = Arrays.copyOf(chars, Math.max(filled + length, 2 * chars.length));
    }
  }

  private void end(int column, int length) {
    places[column][rows] = (long) filled << 32 | length;
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

  /** Where the cells of a column are, by row; {@link #start} and {@link #length} tell of each. */
  long[] places(int column) {
    return places[column];
  }

  /** Where a cell begins. */
  static int start(long place) {
    return (int) (place >>> 32);
  }

  /** How many characters a cell has. */
  static int length(long place) {
    return (int) place;
  }

  String text(int column, int row) {
    long place = places[column][row];
    return new String(chars, start(place), length(place));
  }
}
