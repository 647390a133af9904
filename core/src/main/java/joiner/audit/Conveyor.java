package joiner.audit;

import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletionException;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Hands batches to a second thread, so that rows are read while those before are looked at. A few
 * batches are used again and again. What the second thread throws is thrown where the next batch is
 * handed over.
 */
final class Conveyor implements AutoCloseable {
  private static final int BATCHES = 6;

  private final BlockingQueue<CellBatch> empty = new ArrayBlockingQueue<>(BATCHES);
  private final BlockingQueue<CellBatch> full = new ArrayBlockingQueue<>(BATCHES + 1);
  private final CellBatch end = new CellBatch(0, 1);
  private final AtomicReference<@Nullable Throwable> failure = new AtomicReference<>();
  private final Thread thread;

  /**
   * Hands batches over.
   *
   * @param columns of each batch
   * @param take looks at a batch, on the second thread
   */
  Conveyor(int columns, Consumer<CellBatch> take) {
    for (int i = 0; i < BATCHES; i++) {
      empty.add(new CellBatch(columns, CellBatch.ROWS));
    }
    thread = Thread.ofPlatform().daemon().name("audit").start(() -> work(take));
  }

  private void work(Consumer<CellBatch> take) {
    try {
      for (CellBatch batch = full.take(); batch != end; batch = full.take()) {
        if (failure.get() == null) {
          look(take, batch);
        }
        empty.put(batch);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void look(Consumer<CellBatch> take, CellBatch batch) {
    try {
      take.accept(batch);
    } catch (RuntimeException | Error e) {
      failure.set(e);
    }
  }

  /** A batch to fill. */
  CellBatch empty() {
    try {
      return empty.take();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException();
    }
  }

  /** Hands a full batch over, for one to fill. */
  CellBatch swap(CellBatch filled) {
    rethrow();
    full.add(filled);
    return empty();
  }

  /** Waits until everything was looked at. */
  void finish() {
    full.add(end);
    try {
      thread.join();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException();
    }
    rethrow();
  }

  private void rethrow() {
    switch (failure.get()) {
      case null -> {}
      case RuntimeException e -> throw e;
      case Throwable e -> throw new CompletionException(e);
    }
  }

  /** Ends the second thread where it stands. */
  @Override
  public void close() {
    thread.interrupt();
    try {
      thread.join();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
