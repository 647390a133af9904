package joiner.source;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import joiner.discovery.ColumnProfiler;
import joiner.rows.TableSink;

/**
 * Profiles tables as they are read. Rows go by in batches to two threads, column by column, each
 * column's cells in their order; a few batches may wait, no more.
 */
final class ProfiledTables implements TableSinks, AutoCloseable {
  private static final int BATCH = 2_048;
  private static final int WAITING = 16;

  private final ExecutorService threads =
      Executors.newFixedThreadPool(2, Thread.ofPlatform().daemon().name("profile-", 1).factory());
  private final Semaphore waiting = new Semaphore(WAITING);
  private final List<Profiled> tables = new ArrayList<>();

  @Override
  public TableSink table(String name) {
    var profiled = new Profiled(name);
    tables.add(profiled);
    return profiled;
  }

  @Override
  public SectionSink section(String name, TableSink parent) {
    var profiled = new Profiled(name);
    tables.add(profiled);
    return profiled;
  }

  @Override
  public void restart() {
    tables.clear();
  }

  List<TableProfile> profiles() {
    tables.forEach(Profiled::flush);
    tables.forEach(table -> table.seen.forEach(CompletableFuture::join));
    return tables.stream().map(Profiled::profile).toList();
  }

  @Override
  public void close() {
    threads.shutdownNow();
  }

  /** Cells of one batch of a table: their characters one after the other, and where they are. */
  private static final class Batch {
    private char[] chars = new char[1 << 16];
    private int filled;
    private final List<int[]> starts = new ArrayList<>();
    private final List<int[]> lengths = new ArrayList<>();
    private int rows;

    Batch(int columns) {
      for (int i = 0; i < columns; i++) {
        column();
      }
    }

    void column() {
      starts.add(new int[BATCH]);
      lengths.add(new int[BATCH]);
    }

    void cell(int column, char[] from, int offset, int length) {
      if (filled + length > chars.length) {
        chars = Arrays.copyOf(chars, Math.max(filled + length, 2 * chars.length));
      }
      System.arraycopy(from, offset, chars, filled, length);
      starts.get(column)[rows] = filled;
      lengths.get(column)[rows] = length;
      filled += length;
    }

    /** Shows a column's cells to its profiler. */
    void see(int column, ColumnProfiler profiler, long first) {
      int[] start = starts.get(column);
      int[] length = lengths.get(column);
      for (int row = 0; row < rows; row++) {
        if (length[row] > 0) {
          profiler.see(chars, start[row], length[row], first + row);
        }
      }
    }
  }

  /** One table on its way through. */
  private final class Profiled implements SectionSink {
    private final String name;
    private final List<ColumnProfiler> profilers = new ArrayList<>();

    /** For each column the end of what was given to the threads. */
    private final List<CompletableFuture<Void>> seen = new ArrayList<>();

    private Batch batch = new Batch(0);
    private long rows;

    Profiled(String name) {
      this.name = name;
    }

    @Override
    public int column(String header) {
      profilers.add(new ColumnProfiler(header));
      seen.add(CompletableFuture.completedFuture(null));
      batch.column();
      return profilers.size() - 1;
    }

    @Override
    public void cell(int column, String text) {
      batch.cell(column, text.toCharArray(), 0, text.length());
    }

    @Override
    public void cell(int column, char[] chars, int offset, int length) {
      batch.cell(column, chars, offset, length);
    }

    @Override
    public void belongsTo(int parentRow) {
      // The link is no column.
    }

    @Override
    public void endRow(long line) {
      rows++;
      if (++batch.rows == BATCH) {
        flush();
      }
    }

    void flush() {
      if (batch.rows == 0) {
        return;
      }
      Batch full = batch;
      long first = rows - full.rows;
      waiting.acquireUninterruptibly();
      for (int i = 0; i < profilers.size(); i++) {
        int column = i;
        ColumnProfiler profiler = profilers.get(i);
        seen.set(i, seen.get(i).thenRunAsync(() -> full.see(column, profiler, first), threads));
      }
      CompletableFuture.allOf(seen.toArray(CompletableFuture[]::new))
          .whenComplete((done, failure) -> waiting.release());
      batch = new Batch(profilers.size());
    }

    TableProfile profile() {
      return new TableProfile(
          name, rows, profilers.stream().map(profiler -> profiler.profile(rows)).toList());
    }
  }
}
