package joiner.source;

import java.util.ArrayList;
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
  private static final int BATCH = 4_096;
  private static final int WAITING = 16;

  private final List<ExecutorService> threads = List.of(thread("profile-1"), thread("profile-2"));
  private final Semaphore waiting = new Semaphore(WAITING);
  private final List<Future<?>> failures = new ArrayList<>();
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
    for (Future<?> done : failures) {
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

  /** One table on its way through. */
  private final class Profiled implements SectionSink {
    private final String name;
    private final List<ColumnProfiler> profilers = new ArrayList<>();
    private List<String[]> batch = new ArrayList<>();
    private int filled;
    private long rows;

    Profiled(String name) {
      this.name = name;
    }

    @Override
    public int column(String header) {
      profilers.add(new ColumnProfiler(header));
      batch.add(new String[BATCH]);
      return profilers.size() - 1;
    }

    @Override
    public void cell(int column, String text) {
      batch.get(column)[filled] = text;
    }

    @Override
    public void belongsTo(int parentRow) {
      // The link is no column.
    }

    @Override
    public void endRow(long line) {
      rows++;
      if (++filled == BATCH) {
        flush();
      }
    }

    void flush() {
      if (filled == 0) {
        return;
      }
      List<String[]> columns = batch;
      List<ColumnProfiler> sameProfilers = List.copyOf(profilers);
      long first = rows - filled;
      int count = filled;
      for (int i = 0; i < threads.size(); i++) {
        int offset = i;
        waiting.acquireUninterruptibly();
        Future<?> done =
            threads
                .get(i)
                .submit(
                    () -> {
                      try {
                        see(columns, sameProfilers, offset, first, count);
                      } finally {
                        waiting.release();
                      }
                    });
        failures.removeIf(earlier -> earlier.state() == Future.State.SUCCESS);
        failures.add(done);
      }
      batch = new ArrayList<>();
      profilers.forEach(profiler -> batch.add(new String[BATCH]));
      filled = 0;
    }

    private void see(
        List<String[]> columns, List<ColumnProfiler> into, int offset, long first, int count) {
      for (int column = offset; column < columns.size(); column += threads.size()) {
        String[] cells = columns.get(column);
        for (int i = 0; i < count; i++) {
          if (cells[i] != null) {
            into.get(column).see(cells[i], first + i);
          }
        }
      }
    }

    TableProfile profile() {
      return new TableProfile(
          name, rows, profilers.stream().map(profiler -> profiler.profile(rows)).toList());
    }
  }
}
