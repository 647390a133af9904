package joiner.rows;

import java.util.ArrayList;
import java.util.List;

/**
 * One table of a source as it was found, by columns of codes: small enough to be searched for
 * dependencies while it holds every text as it stood in the source.
 *
 * @param name what the source calls it
 * @param columns its columns, all of the same number of rows
 * @param rows how many rows there are
 */
public record EncodedTable(String name, List<EncodedColumn> columns, int rows) {
  public EncodedTable {
    columns = List.copyOf(columns);
    for (EncodedColumn column : columns) {
      if (column.rows() != rows) {
        throw new IllegalArgumentException(
            "the column " + column.header() + " has " + column.rows() + " rows, not " + rows);
      }
    }
  }

  /** The headers, in order. */
  public List<String> headers() {
    return columns.stream().map(EncodedColumn::header).toList();
  }

  /** The text of a cell, rows from 0; empty text for an empty cell. */
  public String text(int row, int column) {
    return columns.get(column).text(row);
  }

  /** The texts of a row, in the order of the columns. */
  public List<String> row(int row) {
    return columns.stream().map(column -> column.text(row)).toList();
  }

  /** The same rows with only those columns, in that order. */
  public EncodedTable keeping(List<Integer> places) {
    return new EncodedTable(name, places.stream().map(columns::get).toList(), rows);
  }

  /** A table of those rows, each as long as the headers. */
  public static EncodedTable of(String name, List<String> headers, List<List<String>> rows) {
    var builder = new Builder(name);
    headers.forEach(builder::column);
    for (List<String> row : rows) {
      if (row.size() != headers.size()) {
        throw new IllegalArgumentException(
            "a row has " + row.size() + " cells for " + headers.size() + " headers");
      }
      for (int i = 0; i < row.size(); i++) {
        builder.cell(i, row.get(i));
      }
      builder.endRow();
    }
    return builder.build();
  }

  /** Those rows, a column for each of their fields. */
  public static EncodedTable of(TableRows rows) {
    var builder = new Builder(rows.table().name());
    rows.scan(builder);
    return builder.build();
  }

  /** Collects a table row by row; columns may be added while rows come in. */
  public static final class Builder implements TableSink {
    private final String name;
    private final List<EncodedColumn.Builder> columns = new ArrayList<>();
    private int rows;

    /** Collects a table of that name. */
    public Builder(String name) {
      this.name = name;
    }

    @Override
    public int column(String header) {
      columns.add(new EncodedColumn.Builder(header, rows));
      return columns.size() - 1;
    }

    @Override
    public void cell(int column, String text) {
      columns.get(column).set(rows, text);
    }

    @Override
    public void endRow(long line) {
      rows++;
    }

    /** How many rows have come in. */
    public int rows() {
      return rows;
    }

    /** All rows so far. */
    public EncodedTable build() {
      return new EncodedTable(
          name, columns.stream().map(column -> column.build(rows)).toList(), rows);
    }
  }
}
