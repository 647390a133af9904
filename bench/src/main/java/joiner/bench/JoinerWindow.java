package joiner.bench;

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
import joiner.format.DesignFolder;

/** Joiner's window with the demo, ended after its second frame; starts as the application does. */
public final class JoinerWindow {
  private JoinerWindow() {}

  /** Opens and ends. */
  public static void main(String[] arguments) {
    Application.launch(Window.class);
  }

  /** The window. */
  public static final class Window extends Application {
    @Override
    public void start(Stage stage) throws Exception {
      Path demo = Path.of(System.getProperty("joiner.home", "."), "demo", "saltmarsh-pottery");
      Theme.loadFonts();
      var background = new Background();
      var bench =
          new Workbench(
              DesignFolder.open(demo).draft(),
              Optional.empty(),
              background.checks(),
              background.window(),
              Clock.systemDefaultZone());
      var frame = new Frame(bench, background, Theme.LIGHT);
      var scene = new Scene(frame.root(), 1280, 800);
      frame.dress(scene);
      stage.setScene(scene);
      stage.show();
      BareWindow.EndAfterSecondFrame.begin();
    }
  }
}
