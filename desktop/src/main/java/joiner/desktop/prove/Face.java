package joiner.desktop.prove;

import javafx.scene.Node;

/** One of the pages of the stage. */
interface Face {
  /** What fills the stage below the names of the faces. */
  Node main();

  /** What stands in the side sheet. */
  Node side();

  /** Says whether somebody looks. */
  void look(boolean visible);
}
