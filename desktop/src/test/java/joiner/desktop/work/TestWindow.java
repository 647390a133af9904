package joiner.desktop.work;

import java.util.concurrent.BlockingQueue;
import java.util.concurrent.Executor;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;

/** The test's own thread as the window's: what comes back from the background waits until asked. */
public final class TestWindow implements Executor {
  private static final long LONGEST_SECONDS = 20;

  private final BlockingQueue<Runnable> waiting = new LinkedBlockingQueue<>();

  @Override
  public void execute(Runnable work) {
    waiting.add(work);
  }

  /** Runs what comes back until something holds; fails if it does not in time. */
  public void until(BooleanSupplier holds) {
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(LONGEST_SECONDS);
    try {
      while (!holds.getAsBoolean()) {
        Runnable next = waiting.poll(10, TimeUnit.MILLISECONDS);
        if (next != null) {
          next.run();
        } else if (System.nanoTime() > end) {
          throw new AssertionError("it did not happen within " + LONGEST_SECONDS + " s");
        }
      }
    } catch (InterruptedException e) {
      throw new AssertionError(e);
    }
  }
}
