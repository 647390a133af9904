package joiner.source;

import java.nio.file.Path;
import joiner.format.UnreadableFileException;
import joiner.rows.TableSink;

/** Hands the lines of delimited text on as rows of a table, and tells what is wrong with them. */
final class TextRows {
  /** More columns than any database takes (from memory: PostgreSQL 1,600, Oracle 1,000). */
  private static final int MANY_COLUMNS = 1_600;

  private final Path file;
  private final TableSink sink;
  private final ProblemLog problems;
  private final int headerLine;
  private int width;
  private int columns;
  private boolean started;

  /**
   * Rows of a table.
   *
   * @param headerLine the line of the column names, from 1; 0: there are none
   */
  TextRows(Path file, TableSink sink, ProblemLog problems, int headerLine) {
    this.file = file;
    this.sink = sink;
    this.problems = problems;
    this.headerLine = headerLine;
  }

  /**
   * Takes a line.
   *
   * @param line where it stands in the file, from 1
   */
  void take(long line, TextRecord record) {
    if (started) {
      row(line, record);
    } else if (line >= headerLine) {
      begin(line, record);
    }
  }

  private void begin(long line, TextRecord record) {
    started = true;
    width = record.count();
    for (int i = 0; i < width; i++) {
      boolean named = headerLine > 0 && !record.isBlank(i);
      addColumn(named ? record.text(i) : "Column " + (i + 1));
    }
    if (width > MANY_COLUMNS) {
      tell(
          line,
          "there are "
              + width
              + " columns, more than a database table takes; keep only some of them, or turn the"
              + " sheet so that they become rows.");
    }
    if (headerLine == 0) {
      row(line, record);
    }
  }

  private void row(long line, TextRecord record) {
    int count = record.count();
    if (count == 1 && width > 1 && record.isEmpty(0)) {
      return;
    }
    if (count < width) {
      tell(
          line,
          counted(count) + "; the missing ones were taken as empty. Add the missing separators.");
    }
    boolean more = false;
    for (int i = 0; i < count; i++) {
      boolean extra = i >= width && !record.isBlank(i);
      more |= extra;
      while (extra && columns <= i) {
        addColumn("Column " + (columns + 1));
      }
      if (i < columns && !record.isEmpty(i)) {
        put(line, i, record);
      }
    }
    if (more) {
      tell(
          line,
          counted(count)
              + "; the others were kept in columns of their own. Put quotation marks around cells"
              + " that hold the separator.");
    }
    sink.endRow(line);
  }

  private String counted(int count) {
    return "the row has " + count + " cells, the header " + width;
  }

  private void put(long line, int column, TextRecord record) {
    if (record.isFormula(column)) {
      String text = record.text(column);
      tell(
          line,
          "a formula stands where a value is expected: "
              + (text.length() > 40 ? text.substring(0, 40) + "…" : text)
              + "; it was kept as text, not computed. Save the sheet with values.");
    }
    record.put(column, sink);
  }

  private void tell(long line, String message) {
    problems.add(SourceProblem.inLine(file, line, message));
  }

  private void addColumn(String header) {
    sink.column(header);
    columns++;
  }

  /** Ends the table. */
  void end() throws UnreadableFileException {
    if (!started) {
      throw new UnreadableFileException(
          file, 1, "the file is empty; it needs a line with the column names.");
    }
  }
}
