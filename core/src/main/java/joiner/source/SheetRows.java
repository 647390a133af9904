package joiner.source;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import joiner.rows.TableSink;

/** Finds the column names of a sheet and hands its rows on. Empty rows and columns are left out. */
final class SheetRows {
  private static final int LOOKED_AT = 200;

  private final TableSinks sinks;
  private final String name;
  private final ReadingOptions options;
  private final List<TextShape.Line> waiting = new ArrayList<>();
  private final Map<Integer, Integer> columns = new LinkedHashMap<>();
  private TextShape.@org.jspecify.annotations.Nullable Line header;
  private @org.jspecify.annotations.Nullable TableSink sink;

  SheetRows(TableSinks sinks, String name, ReadingOptions options) {
    this.sinks = sinks;
    this.name = name;
    this.options = options;
  }

  /**
   * Takes a row.
   *
   * @param number from 1
   */
  void take(long number, List<String> cells) {
    options.checkStopped();
    var line = new TextShape.Line(number, cells);
    if (line.filled() == 0) {
      return;
    }
    if (sink != null) {
      row(line);
    } else {
      waiting.add(line);
      if (waiting.size() == LOOKED_AT) {
        begin();
      }
    }
  }

  /** Ends the sheet; tells whether there was anything in it. */
  boolean end() {
    if (sink == null && !waiting.isEmpty()) {
      begin();
    }
    return sink != null;
  }

  private void begin() {
    int names = options.headerLine().orElseGet(() -> TextShape.header(waiting));
    sink = sinks.table(name);
    for (TextShape.Line line : waiting) {
      if (line.number() == names) {
        header = line;
        for (int i = 0; i < line.cells().size(); i++) {
          if (!line.cells().get(i).isBlank()) {
            columnOf(i);
          }
        }
      } else if (line.number() > names) {
        row(line);
      }
    }
    waiting.clear();
  }

  private int columnOf(int place) {
    Integer known = columns.get(place);
    if (known != null) {
      return known;
    }
    String text = header != null && place < header.cells().size() ? header.cells().get(place) : "";
    int column =
        java.util.Objects.requireNonNull(sink)
            .column(text.isBlank() ? "Column " + (place + 1) : text);
    columns.put(place, column);
    return column;
  }

  private void row(TextShape.Line line) {
    TableSink rows = java.util.Objects.requireNonNull(sink);
    for (int i = 0; i < line.cells().size(); i++) {
      if (!line.cells().get(i).isEmpty()) {
        int column = columnOf(i);
        rows.cell(column, line.cells().get(i));
      }
    }
    rows.endRow(line.number());
  }

  /** How a workbook with so many sheets is told. */
  static String words(int sheets) {
    return sheets == 1 ? "one sheet" : sheets + " sheets";
  }

  /** A formula without a result. */
  static SourceProblem unsolved(Path file, String sheet, long row) {
    return SourceProblem.inSheet(
        file,
        sheet,
        row,
        "a formula has no stored result; the cell was taken as empty. Open the workbook, let it"
            + " calculate, and save it.");
  }
}
