package joiner.desktop.widget;

import javafx.scene.Node;

/** One of the six working views. */
public interface StageView {
  /** What fills the middle of the window. */
  Node main();

  /** What stands in the side sheet. */
  Node side();
}
