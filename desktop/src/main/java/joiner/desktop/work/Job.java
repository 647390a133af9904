package joiner.desktop.work;

import java.util.concurrent.Executor;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.ReadOnlyDoubleWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/** A request that waits or runs. Its properties belong to the window's thread. */
public final class Job<T> implements Progress {
  /** Progress is not shown more often than this, in nanoseconds; a frame is 16 ms. */
  private static final long SHOWN_EVERY = 30_000_000;

  private final Request<T> request;
  private final Executor window;
  private final long number;
  private final ReadOnlyDoubleWrapper done = new ReadOnlyDoubleWrapper(-1);
  private final ReadOnlyStringWrapper words = new ReadOnlyStringWrapper("");
  private volatile boolean stopped;
  private volatile long shown;

  Job(Request<T> request, Executor window, long number) {
    this.request = request;
    this.window = window;
    this.number = number;
  }

  Request<T> request() {
    return request;
  }

  /** Order of asking. */
  long number() {
    return number;
  }

  /** What is being done, as people read it. */
  public String title() {
    return request.title();
  }

  /** What it waits for. */
  public Lane lane() {
    return request.lane();
  }

  /** Share that is done, 0 to 1; −1 while nothing is known. */
  public ReadOnlyDoubleProperty doneProperty() {
    return done.getReadOnlyProperty();
  }

  /** What is being done just now. */
  public ReadOnlyStringProperty wordsProperty() {
    return words.getReadOnlyProperty();
  }

  /** Says that the result is no longer wanted; it is not delivered then. */
  public void stop() {
    stopped = true;
  }

  @Override
  public boolean stopped() {
    return stopped;
  }

  @Override
  public void share(double part) {
    long now = System.nanoTime();
    if (now - shown > SHOWN_EVERY || part >= 1) {
      shown = now;
      window.execute(() -> done.set(part));
    }
  }

  @Override
  public void doing(String what) {
    window.execute(() -> words.set(what));
  }
}
