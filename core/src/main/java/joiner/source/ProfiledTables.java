package joiner.source;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import joiner.discovery.ColumnProfiler;
import joiner.rows.TableSink;

/**
 * Profiles tables as they are read. Rows go by in batches to two threads, each of which looks after
 * every second column; a few batches may wait, no more.
 */
final class ProfiledTables implements TableSinks, AutoCloseable {
  private static final int BATCH = 2_048;
  private static final int WAITING = 16;

  private final List<ExecutorService> threads = List.of(thread("profile-1"), thread("profile-2"));
  private final Semaphore waiting = new Semaphore(WAITING);
  private final List<Future<?>> unfinished = new ArrayList<>();
  private final List<Profiled> tables = new ArrayList<>();

  private static ExecutorService thread(String name) {
    return Executors.newSingleThreadExecutor(Thread.ofPlatform().daemon().name(name).factory());
  }

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
    waiting.acquireUninterruptibly(WAITING);
    for (Future<?> done : unfinished) {
      try {
        done.get();
      } catch (ExecutionException | InterruptedException e) {
        throw new IllegalStateException("profiling failed", e);
      }
    }
    return tables.stream().map(Profiled::profile).toList();
  }

  @Override
  public void close() {
    threads.forEach(ExecutorService::shutdownNow);
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

    /** Shows every second column's cells to its profiler. */
    void see(List<ColumnProfiler> into, int offset, int step, long first) {
      for (int column = offset; column < starts.size(); column += step) {
        int[] start = starts.get(column);
        int[] length = lengths.get(column);
        ColumnProfiler profiler = into.get(column);
        for (int row = 0; row < rows; row++) {
          if (length[row] > 0) {
            profiler.see(chars, start[row], length[row], first + row);
          }
        }
      }
    }
  }

  /** One table on its way through. */
  private final class Profiled implements SectionSink {
    private final String name;
    private final List<ColumnProfiler> profilers = new ArrayList<>();
    private Batch batch = new Batch(0);
    private long rows;

    Profiled(String name) {
      this.name = name;
    }

    @Override
    public int column(String header) {
      profilers.add(new ColumnProfiler(header));
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
      List<ColumnProfiler> into = List.copyOf(profilers);
      long first = rows - full.rows;
      for (int i = 0; i < threads.size(); i++) {
        int offset = i;
        submit(threads.get(i), () -> full.see(into, offset, threads.size(), first));
      }
      batch = new Batch(profilers.size());
    }

    TableProfile profile() {
      return new TableProfile(
          name, rows, profilers.stream().map(profiler -> profiler.profile(rows)).toList());
    }
  }

  private void submit(ExecutorService thread, Runnable work) {
    waiting.acquireUninterruptibly();
    Future<?> done =
        thread.submit(
            () -> {
              try {
                work.run();
              } finally {
                waiting.release();
              }
            });
    unfinished.removeIf(earlier -> earlier.state() == Future.State.SUCCESS);
    unfinished.add(done);
  }
}
