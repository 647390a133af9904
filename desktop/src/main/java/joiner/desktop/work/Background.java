package joiner.desktop.work;

import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.concurrent.Task;

/** The one place where work leaves the window's thread and comes back to it. */
public final class Background {
  private final ExecutorService checks = Executors.newSingleThreadExecutor(daemon("joiner-checks"));
  private final ExecutorService tasks = Executors.newFixedThreadPool(2, daemon("joiner-task"));

  private static java.util.concurrent.ThreadFactory daemon(String name) {
    return work -> {
      var thread = new Thread(work, name);
      thread.setDaemon(true);
      return thread;
    };
  }

  /** Runs checks and saves, one after the other. */
  public java.util.concurrent.Executor checks() {
    return checks;
  }

  /** Runs what belongs to the window's thread. */
  public java.util.concurrent.Executor window() {
    return Platform::runLater;
  }

  /** Starts a task that shows its own progress. */
  public void start(Task<?> task) {
    tasks.execute(task);
  }

  /** Computes something and hands it to the window, or its failure. */
  public <T> void compute(Callable<T> work, Consumer<T> done, Consumer<Throwable> failed) {
    var task =
        new Task<T>() {
          @Override
          protected T call() throws Exception {
            return work.call();
          }
        };
    task.setOnSucceeded(event -> done.accept(task.getValue()));
    task.setOnFailed(event -> failed.accept(task.getException()));
    start(task);
  }
}
