package joiner.desktop.prove;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import joiner.model.Multiplicity;
import joiner.model.Quantity;

/**
 * The joint between two tables: one is a tab, many a comb; filled where a row must be there, hollow
 * where it may be missing.
 */
final class JoinMark extends HBox {
  /**
   * The joint of a relationship.
   *
   * @param down whether the parent stands at the left
   */
  JoinMark(Multiplicity multiplicity, boolean down) {
    Quantity near = down ? multiplicity.parents() : multiplicity.children();
    Quantity far = down ? multiplicity.children() : multiplicity.parents();
    var line = new Region();
    line.getStyleClass().add("joint-line");
    getChildren().setAll(end(near), line, end(far));
    setAlignment(Pos.CENTER);
    getStyleClass().add("joint");
  }

  private static Node end(Quantity quantity) {
    boolean many = quantity == Quantity.ANY_NUMBER || quantity == Quantity.ONE_OR_MANY;
    boolean required = quantity == Quantity.EXACTLY_ONE || quantity == Quantity.ONE_OR_MANY;
    var end = new VBox(2);
    end.setAlignment(Pos.CENTER);
    for (int i = 0; i < (many ? 3 : 1); i++) {
      var piece = new Region();
      piece
          .getStyleClass()
          .addAll(many ? "joint-finger" : "joint-tab", required ? "filled" : "hollow");
      end.getChildren().add(piece);
    }
    return end;
  }
}
