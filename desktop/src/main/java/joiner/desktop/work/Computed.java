package joiner.desktop.work;

import java.util.Optional;
import java.util.function.BiPredicate;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;

/**
 * Something worked out in the background for a pane. Asking for what is known or underway already
 * does nothing; while nobody looks at the pane, the newest question waits. Belongs to the window's
 * thread.
 *
 * @param <I> what it is worked out from; an unchanging value
 * @param <T> what is worked out
 */
public final class Computed<I, T> {
  private final Runner runner;
  private final String title;
  private final Lane lane;
  private final BiPredicate<I, I> same;
  private final Work<I, T> work;
  private final ReadOnlyObjectWrapper<Answer<T>> answer =
      new ReadOnlyObjectWrapper<>(new Answer.Unasked<>());
  private @Nullable I asked;
  private @Nullable Job<T> job;
  private boolean looking = true;

  /** Works something out. */
  public interface Work<I, T> {
    T of(I input, Progress progress) throws Exception;
  }

  /**
   * Something to work out.
   *
   * @param title what is being done, as people read it
   * @param same whether two inputs give the same, decided quickly
   */
  public Computed(Runner runner, String title, Lane lane, BiPredicate<I, I> same, Work<I, T> work) {
    this.runner = runner;
    this.title = title;
    this.lane = lane;
    this.same = same;
    this.work = work;
  }

  /** What is known now. */
  public ReadOnlyObjectProperty<Answer<T>> answerProperty() {
    return answer.getReadOnlyProperty();
  }

  /** What is known now. */
  public Answer<T> answer() {
    return answer.get();
  }

  /** Asks for the result of an input; that of an older one is no longer wanted. */
  public void ask(I input) {
    boolean known = asked != null && same.test(asked, input) && !ended(answer.get());
    if (known) {
      return;
    }
    asked = input;
    endJob();
    answer.set(new Answer.Underway<>(answer.get().latest()));
    if (looking) {
      begin(input);
    }
  }

  private static boolean ended(Answer<?> answer) {
    return answer instanceof Answer.Failed || answer instanceof Answer.Stopped;
  }

  /** Says whether somebody looks at the pane. */
  public void look(boolean now) {
    looking = now;
    if (!now) {
      endJob();
    } else if (asked != null && job == null && answer.get() instanceof Answer.Underway) {
      begin(asked);
    }
  }

  /** Ends it where it stands; asking again begins anew. */
  public void stop() {
    if (job != null) {
      endJob();
      answer.set(new Answer.Stopped<>(answer.get().latest()));
    }
  }

  private void endJob() {
    Job<T> running = job;
    job = null;
    if (running != null) {
      runner.stop(running);
    }
  }

  private void begin(I input) {
    job =
        runner.start(
            new Request<>(
                this,
                title,
                lane,
                true,
                progress -> work.of(input, progress),
                this::done,
                this::failed,
                () -> {}));
  }

  private void done(T value) {
    job = null;
    answer.set(new Answer.Current<>(value));
  }

  private void failed(Failure failure) {
    job = null;
    answer.set(new Answer.Failed<>(failure, answer.get().latest()));
  }

  /** The job that works on it, if one does. */
  public Optional<Job<T>> job() {
    return Optional.ofNullable(job);
  }
}
