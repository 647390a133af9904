package joiner.desktop;

import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import javafx.application.Application;
import javafx.scene.Scene;
import javafx.stage.Stage;
import joiner.desktop.frame.Frame;
import joiner.desktop.theme.Theme;
import joiner.desktop.work.Background;
import joiner.desktop.work.Workbench;
import joiner.model.Design;
import joiner.rows.Draft;
import joiner.rows.SampleRows;

/** The window as JavaFX starts it. */
public final class JoinerApplication extends Application {
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
  }
}
