package joiner.desktop.work;

import java.util.function.Consumer;

/**
 * Work wanted in the background and what becomes of its result. The callbacks run on the window's
 * thread, and at most one of them, once.
 *
 * @param key what it is about; a newer request with an equal key ends the older one
 * @param title what is being done, as people read it: "Reading firing log.csv"
 * @param lane what it waits for
 * @param visible whether somebody is looking at the place its result goes to
 * @param work done on a background thread
 * @param done gets the result
 * @param failed gets what went wrong
 * @param stopped is told when it was stopped
 */
public record Request<T>(
    Object key,
    String title,
    Lane lane,
    boolean visible,
    Work<T> work,
    Consumer<T> done,
    Consumer<Failure> failed,
    Runnable stopped) {

  /** Work that may fail. */
  public interface Work<T> {
    T run(Progress progress) throws Exception;
  }

  /** A request for visible work whose end is of no interest when it is stopped. */
  public static <T> Request<T> of(
      Object key, String title, Work<T> work, Consumer<T> done, Consumer<Failure> failed) {
    return new Request<>(key, title, Lane.WORKING, true, work, done, failed, () -> {});
  }

  /** The same with something to do when it is stopped. */
  public Request<T> whenStopped(Runnable other) {
    return new Request<>(key, title, lane, visible, work, done, failed, other);
  }

  /** The same in another lane. */
  public Request<T> in(Lane other) {
    return new Request<>(key, title, other, visible, work, done, failed, stopped);
  }
}
