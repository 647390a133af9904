package joiner.desktop;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.application.Platform;
import org.junit.jupiter.api.extension.AfterAllCallback;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/**
 * Watches the window's thread while tests drive the window: a pulse is handed to it again and
 * again, and where one waits longer than a frame, the stack of the thread says what held it up. The
 * worst of a class go to {@code target/window-watch-CLASS.txt}; nothing is asserted, for times
 * depend on the machine.
 */
final class WindowWatch implements BeforeEachCallback, AfterEachCallback, AfterAllCallback {
  private static final long FRAME_NANOS = 16_000_000;
  private static final int KEPT = 12;

  private record Delay(long nanos, String test, String where) {}

  private final List<Delay> delays = new ArrayList<>();
  private volatile boolean watching;
  private Optional<Thread> watch = Optional.empty();

  @Override
  public void beforeEach(ExtensionContext context) {
    watching = true;
    watch =
        Optional.of(
            Thread.ofPlatform()
                .daemon()
                .name("window-watch")
                .start(() -> watch(context.getDisplayName())));
  }

  @Override
  public void afterEach(ExtensionContext context) throws InterruptedException {
    watching = false;
    if (watch.isPresent()) {
      watch.get().join(5_000);
    }
  }

  private void watch(String test) {
    Optional<Thread> window =
        Thread.getAllStackTraces().keySet().stream()
            .filter(thread -> thread.getName().equals("JavaFX Application Thread"))
            .findFirst();
    while (watching && window.isPresent()) {
      var arrived = new java.util.concurrent.atomic.AtomicBoolean();
      long handed = System.nanoTime();
      Platform.runLater(() -> arrived.set(true));
      String where = "";
      while (!arrived.get() && watching) {
        if (where.isEmpty() && System.nanoTime() - handed > FRAME_NANOS) {
          where = place(window.get().getStackTrace());
        }
        java.util.concurrent.locks.LockSupport.parkNanos(500_000);
      }
      long waited = System.nanoTime() - handed;
      if (waited > FRAME_NANOS) {
        synchronized (delays) {
          delays.add(new Delay(waited, test, where));
        }
      }
    }
  }

  private static String place(StackTraceElement[] stack) {
    String own =
        Arrays.stream(stack)
            .filter(frame -> frame.getClassName().startsWith("joiner."))
            .limit(4)
            .map(
                frame ->
                    frame.getClassName()
                        + "."
                        + frame.getMethodName()
                        + ":"
                        + frame.getLineNumber())
            .collect(Collectors.joining(" < "));
    String top =
        Arrays.stream(stack)
            .limit(2)
            .map(frame -> frame.getClassName() + "." + frame.getMethodName())
            .collect(Collectors.joining(" < "));
    return own.isEmpty() ? top : own;
  }

  @Override
  public void afterAll(ExtensionContext context) {
    var lines = new ArrayList<String>();
    synchronized (delays) {
      lines.add(delays.size() + " times the window's thread was held longer than a frame; worst:");
      delays.stream()
          .sorted(Comparator.comparingLong(Delay::nanos).reversed())
          .limit(KEPT)
          .forEach(
              delay ->
                  lines.add(
                      String.format(
                          Locale.ROOT,
                          "%6.0f ms  %s  %s",
                          delay.nanos() / 1e6,
                          delay.test(),
                          delay.where())));
    }
    try {
      Path report =
          Path.of(
              "target", "window-watch-" + context.getRequiredTestClass().getSimpleName() + ".txt");
      Files.createDirectories(report.getParent());
      Files.write(report, lines);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
