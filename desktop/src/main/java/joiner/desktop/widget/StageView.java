package joiner.desktop.widget;

import java.util.List;
import javafx.scene.Node;

/** One of the six working views. */
public interface StageView {
  /** What fills the middle of the window. */
  Node main();

  /** What stands in the side sheet. */
  Node side();

  /** Is told when the stage comes into sight and when it goes out of it. */
  default void shown(boolean visible) {}

  /** What can be done here with what is typed into the finder. */
  default List<Command> commandsFor(String typed) {
    return List.of();
  }

  /** What can be done here, for the finder. */
  default List<Command> commands() {
    return List.of();
  }
}
