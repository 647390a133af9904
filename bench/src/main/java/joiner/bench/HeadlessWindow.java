package joiner.bench;

import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.FutureTask;
import javafx.application.Platform;

/** The toolkit without a display, and work on its thread. */
final class HeadlessWindow {
  private HeadlessWindow() {}

  /** Starts the toolkit, drawn by software; it stays until it is told to exit. */
  static void start() throws InterruptedException {
    System.setProperty("glass.platform", "Headless");
    System.setProperty("prism.order", "sw");
    var started = new CountDownLatch(1);
    Platform.startup(started::countDown);
    started.await();
    Platform.setImplicitExit(false);
  }

  /** Does something on the window's thread and waits for it. */
  static <T> T on(Callable<T> work) throws Exception {
    var task = new FutureTask<>(work);
    Platform.runLater(task);
    return task.get();
  }
}
