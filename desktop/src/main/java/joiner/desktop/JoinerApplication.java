package joiner.desktop;

import java.io.IOException;
import java.time.Clock;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Future;
import java.util.concurrent.FutureTask;
import javafx.animation.AnimationTimer;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.geometry.Rectangle2D;
import javafx.scene.Scene;
import javafx.stage.Screen;
import javafx.stage.Stage;
import javafx.util.Duration;
import joiner.desktop.frame.Frame;
import joiner.desktop.theme.Theme;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Lane;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Workbench;
import joiner.format.Places;

/** The window as JavaFX starts it. */
public final class JoinerApplication extends Application {
  /**
   * System property that makes the window end by itself: after a walk through its stages ({@code
   * walk}) or after its second frame ({@code start}).
   */
  static final String TRAINING = "joiner.training";

  private static final double WIDTH = 1280;
  private static final double HEIGHT = 800;
  private static final long LAST_SAVE_MILLIS = 20_000;

  /** The design to open, which is read while the toolkit starts. */
  private static Future<OpenDesign> opening =
      CompletableFuture.completedFuture(OpenDesign.empty("Untitled design"));

  private final Runner runner = Runner.ofWindow();
  private final Settings settings = Settings.in(Places.settings());
  private OpenDesign opened = OpenDesign.empty("Untitled design");
  private Optional<Workbench> open = Optional.empty();

  /**
   * Opens the window with an empty design, and returns when it is closed.
   *
   * @throws RuntimeException as JavaFX wraps what went wrong
   */
  static void open() {
    launch(JoinerApplication.class);
  }

  /** The same with a design that is read meanwhile; JavaFX passes nothing but texts itself. */
  static void open(Callable<OpenDesign> reading) {
    var task = new FutureTask<>(reading);
    opening = task;
    Thread.ofPlatform().daemon().name("joiner-opening").start(task);
    open();
  }

  /** On a thread of its own: the window's thread never waits for a file. */
  @Override
  public void init() throws Exception {
    opened = opening.get();
  }

  @Override
  public void start(Stage stage) {
    Theme.loadFonts();
    // Before the first control, which would read the toolkit's own style sheet.
    Frame.wear(settings);
    runner.hold();
    var recovery = new Recovery(Places.recovery());
    var bench = new Workbench(opened, runner, recovery, Clock.systemDefaultZone());
    open = Optional.of(bench);
    hearFailures(bench);
    place(stage);
    var frame = new Frame(bench, recovery, settings);
    var scene = new Scene(frame.root());
    frame.dress(scene);
    stage.setScene(scene);
    bench
        .historyProperty()
        .subscribe(h -> stage.setTitle(h.present().design().title() + " – Joiner"));
    stage.setOnCloseRequest(
        event -> {
          event.consume();
          frame.unlessLost(() -> close(stage));
        });
    stage.focusedProperty().subscribe(focused -> lookWhere(focused, bench));
    stage.show();
    new AfterPictures(1, runner::release).start();
    switch (System.getProperty(TRAINING, "")) {
      case "walk" -> walk(bench);
      case "start" -> new AfterPictures(2, Platform::exit).start();
      default -> {}
    }
  }

  /** Whatever is thrown on the window's thread, or on any other, is told and written down. */
  private static void hearFailures(Workbench bench) {
    Thread.currentThread()
        .setUncaughtExceptionHandler(
            (thread, thrown) -> bench.tell(Failure.of("What you just did", thrown)));
    Thread.setDefaultUncaughtExceptionHandler(
        (thread, thrown) -> {
          Failure failure = Failure.of("Work in the background", thrown);
          Platform.runLater(() -> bench.tell(failure));
        });
  }

  /** As large as last time, and never larger than the screen with the window's own frame. */
  private void place(Stage stage) {
    Rectangle2D screen = Screen.getPrimary().getVisualBounds();
    stage.setMinWidth(Math.min(1000, screen.getWidth()));
    stage.setMinHeight(Math.min(640, screen.getHeight()));
    stage.setWidth(Math.min(settings.number("window.width").orElse(WIDTH), screen.getWidth()));
    stage.setHeight(Math.min(settings.number("window.height").orElse(HEIGHT), screen.getHeight()));
    // With its own frame such a window would stand over the edge; the window manager fits it in.
    boolean full =
        stage.getHeight() > screen.getHeight() - 60 || stage.getWidth() > screen.getWidth() - 20;
    stage.setMaximized(
        full || settings.get("window.maximized").map(Boolean::parseBoolean).orElse(false));
  }

  private void close(Stage stage) {
    settings.put("window.maximized", String.valueOf(stage.isMaximized()));
    if (!stage.isMaximized()) {
      settings.put("window.width", String.valueOf(Math.round(stage.getWidth())));
      settings.put("window.height", String.valueOf(Math.round(stage.getHeight())));
    }
    stage.close();
  }

  private static void lookWhere(boolean focused, Workbench bench) {
    if (focused) {
      bench.lookForChanges();
    }
  }

  @Override
  public void stop() throws IOException {
    open.ifPresent(Workbench::leave);
    boolean saved = runner.finish(Lane.SAVING, LAST_SAVE_MILLIS);
    if (System.getProperty(TRAINING) == null) {
      settings.save();
    }
    if (!saved) {
      System.err.println("joiner: the last save did not end; the design is as it was before it");
    }
  }

  /**
   * Walks through the stages once and ends, so that what a start needs can be kept ready for the
   * next.
   */
  private static void walk(Workbench bench) {
    var walk = new Timeline();
    for (joiner.desktop.work.Stage view : joiner.desktop.work.Stage.values()) {
      walk.getKeyFrames()
          .add(
              new KeyFrame(
                  Duration.millis(600.0 * (view.ordinal() + 1)),
                  event -> bench.stageProperty().set(view)));
    }
    walk.setOnFinished(event -> Platform.exit());
    walk.play();
  }

  /** Does something once so many pictures of the window stand. */
  private static final class AfterPictures extends AnimationTimer {
    private final Runnable then;
    private int left;

    AfterPictures(int pictures, Runnable then) {
      this.left = pictures;
      this.then = then;
    }

    /** The one before a picture: the last is for what stands already. */
    @Override
    public void handle(long now) {
      if (left-- == 0) {
        stop();
        then.run();
      }
    }
  }
}
