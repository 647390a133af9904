package joiner.bench;

import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;

/** An empty JavaFX window that ends after its second frame: the ruler for Joiner's start. */
public final class BareWindow {
  private BareWindow() {}

  /** Opens and ends. */
  public static void main(String[] arguments) {
    Application.launch(Window.class);
  }

  /** The window. */
  public static final class Window extends Application {
    @Override
    public void start(Stage stage) {
      stage.setScene(new Scene(new StackPane(new Label("bare")), 1280, 800));
      stage.show();
      EndAfterSecondFrame.begin();
    }
  }

  /** Ends the process when two frames have been drawn. */
  static final class EndAfterSecondFrame extends javafx.animation.AnimationTimer {
    private int frames;

    static void begin() {
      new EndAfterSecondFrame().start();
    }

    @Override
    public void handle(long now) {
      if (++frames > 2) {
        stop();
        Platform.exit();
      }
    }
  }
}
