package joiner.desktop;

import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import javafx.animation.AnimationTimer;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;
import javafx.util.Duration;
import joiner.desktop.frame.Frame;
import joiner.desktop.theme.Theme;
import joiner.desktop.work.Background;
import joiner.desktop.work.Workbench;
import joiner.model.Design;
import joiner.rows.Draft;
import joiner.rows.SampleRows;

/** The window as JavaFX starts it. */
public final class JoinerApplication extends Application {
  /**
   * System property that makes the window end by itself: after a walk through its stages ({@code
   * walk}) or after its second frame ({@code start}).
   */
  static final String TRAINING = "joiner.training";

  private static Draft draft =
      new Draft(Design.empty("untitled", "Untitled design"), SampleRows.NONE);
  private static Optional<Path> folder = Optional.empty();

  /**
   * Says what the window opens with; JavaFX makes the application itself and passes only texts on.
   */
  static void prepare(Draft opened, Optional<Path> from) {
    draft = opened;
    folder = from;
  }

  @Override
  public void start(Stage stage) {
    Theme.loadFonts();
    var background = new Background();
    var bench =
        new Workbench(
            draft, folder, background.checks(), background.window(), Clock.systemDefaultZone());
    var frame = new Frame(bench, background, Theme.LIGHT);
    var scene = new Scene(frame.root(), 1280, 800);
    frame.dress(scene);
    stage.setScene(scene);
    stage.setTitle("Joiner");
    stage.setMinWidth(1000);
    stage.setMinHeight(640);
    stage.show();
    switch (System.getProperty(TRAINING, "")) {
      case "walk" -> walk(bench);
      case "start" -> new EndAfterSecondFrame().start();
      default -> {}
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

  /** Ends the process when two frames have been drawn, so that a start can be measured. */
  private static final class EndAfterSecondFrame extends AnimationTimer {
    private int frames;

    @Override
    public void handle(long now) {
      if (++frames > 2) {
        stop();
        Platform.exit();
      }
    }
  }
}
