package joiner.audit;

import java.io.IOException;
import java.util.List;
import java.util.OptionalLong;
import java.util.concurrent.CancellationException;
import joiner.model.TableId;
import joiner.rows.RowSource;
import joiner.rows.TableSink;

/**
 * Rows that are read whole before an audit, as far as its watch lets them.
 *
 * @param source where they are
 */
record WatchedRows(RowSource source, TableId table, Audit.Watch watch) implements RowSource {
  @Override
  public List<String> headers() {
    return source.headers();
  }

  @Override
  public OptionalLong count() {
    return source.count();
  }

  @Override
  public void scan(TableSink sink) throws IOException {
    source.scan(new Watched(sink));
  }

  private final class Watched implements TableSink {
    private final TableSink to;
    private long rows;

    Watched(TableSink to) {
      this.to = to;
    }

    @Override
    public int column(String header) {
      return to.column(header);
    }

    @Override
    public void cell(int column, String text) {
      to.cell(column, text);
    }

    @Override
    public void cell(int column, char[] chars, int offset, int length) {
      to.cell(column, chars, offset, length);
    }

    @Override
    public void endRow(long line) {
      to.endRow(line);
      if (++rows % CellBatch.ROWS == 0 && !watch.goesOn(table, rows)) {
        throw new CancellationException();
      }
    }
  }
}
