package joiner.desktop.widget;

import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Scene;

/** Does something once, when everything that was changed has its place. */
public final class WhenLaidOut {
  private WhenLaidOut() {}

  /** Runs the action after the next layout of the node's scene; nothing if it is in none. */
  public static void run(Node node, Runnable action) {
    Scene scene = node.getScene();
    if (scene == null) {
      return;
    }
    var once =
        new Runnable() {
          @Override
          public void run() {
            scene.removePostLayoutPulseListener(this);
            action.run();
          }
        };
    scene.addPostLayoutPulseListener(once);
    Platform.requestNextPulse();
  }
}
