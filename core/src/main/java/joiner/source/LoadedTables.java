package joiner.source;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import joiner.rows.EncodedTable;
import joiner.rows.TableSink;

/** Keeps the tables of a file in memory, encoded. */
final class LoadedTables implements TableSinks {
  private final List<Loaded> tables = new ArrayList<>();

  @Override
  public TableSink table(String name) {
    return add(name, -1);
  }

  @Override
  public SectionSink section(String name, TableSink parent) {
    return add(name, tables.indexOf(parent));
  }

  private Loaded add(String name, int parent) {
    var loaded = new Loaded(name, parent);
    tables.add(loaded);
    return loaded;
  }

  @Override
  public void restart() {
    tables.clear();
  }

  List<SourceTable> build() {
    for (Loaded table : tables.reversed()) {
      table.endRowsBegun();
    }
    return tables.stream().map(Loaded::build).toList();
  }

  private final class Loaded implements SectionSink {
    private final EncodedTable.Builder cells;
    private final int parent;
    private int[] parentRows = new int[16];

    Loaded(String name, int parent) {
      this.cells = new EncodedTable.Builder(name);
      this.parent = parent;
    }

    @Override
    public int column(String header) {
      return cells.column(header);
    }

    @Override
    public void cell(int column, String text) {
      cells.cell(column, text);
    }

    @Override
    public void belongsTo(int parentRow) {
      if (cells.rows() == parentRows.length) {
        parentRows = Arrays.copyOf(parentRows, 2 * parentRows.length);
      }
      parentRows[cells.rows()] = parentRow;
    }

    @Override
    public void endRow(long line) {
      cells.endRow(line);
    }

    /** Where a file breaks off, a row may have details and not have ended. */
    void endRowsBegun() {
      if (parent >= 0 && cells.rows() > 0) {
        Loaded above = tables.get(parent);
        while (above.cells.rows() <= parentRows[cells.rows() - 1]) {
          above.endRow(0);
        }
      }
    }

    SourceTable build() {
      EncodedTable table = cells.build();
      return new SourceTable(
          table,
          parent < 0
              ? Optional.empty()
              : Optional.of(
                  new SourceTable.Parent(parent, Arrays.copyOf(parentRows, table.rows()))));
    }
  }
}
