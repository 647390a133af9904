package joiner.rows;

/** Takes a table in as it is read, cell by cell, so that no reader has to hold it. */
public interface TableSink {
  /**
   * Announces a further column. Rows that ended before are empty in it.
   *
   * @param header as it stands in the source
   * @return its place, from 0
   */
  int column(String header);

  /** The text of a cell of the current row; cells that are not named are empty. */
  void cell(int column, String text);

  /** The text of a cell as characters that may be overwritten afterwards. */
  default void cell(int column, char[] chars, int offset, int length) {
    cell(column, new String(chars, offset, length));
  }

  /**
   * Ends the current row.
   *
   * @param line where the row began in the source, from 1; 0 where lines mean nothing
   */
  void endRow(long line);

  /** Ends the current row where lines mean nothing. */
  default void endRow() {
    endRow(0);
  }
}
