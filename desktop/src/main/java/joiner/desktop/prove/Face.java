package joiner.desktop.prove;

import java.util.List;
import javafx.scene.Node;
import joiner.desktop.widget.Command;

/** One of the pages of the stage. */
interface Face {
  /** What fills the stage below the names of the faces. */
  Node main();

  /** What stands in the side sheet. */
  Node side();

  /** Says whether somebody looks. */
  void look(boolean visible);

  /** What can be done here, for the finder. */
  default List<Command> commands() {
    return List.of();
  }
}
