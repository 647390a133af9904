package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Table;
import org.kordamp.ikonli.feather.Feather;

/**
 * An index of a table: its fields in their order, each turned round by a click, moved with Alt and
 * the arrows.
 */
final class IndexForm {
  private final SheetModel model;
  private final Texts texts;

  IndexForm(SheetModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
  }

  Node of(Table table, Index index) {
    String kind = texts.get(model.serves(table, index) ? "side.keys.serves" : "side.keys.index");
    var called = Parts.prose(kind, "muted");
    called.setMinWidth(78);
    called.setPrefWidth(78);
    var fields = new FlowPane(2, 2);
    index.fields().forEach(field -> fields.getChildren().add(field(table, index, field)));
    HBox.setHgrow(fields, Priority.ALWAYS);
    String labels = String.join(", ", table.labelsOf(index.fields()));
    Node remove =
        Parts.iconButton(
            Feather.X,
            texts.get("side.keys.remove", kind, labels),
            () -> model.removeIndex(table, index));
    var row = Parts.row(4, called, fields, remove);
    row.getStyleClass().add("fact");
    return row;
  }

  private Button field(Table table, Index index, FieldId field) {
    boolean down = index.descending().contains(field);
    String label = table.field(field).label();
    Button button =
        Parts.button(
            label + (down ? " ↓" : " ↑"), () -> turn(table, index, field), "plain", "small");
    button.setId("index-" + index.id().value() + "-" + field.value());
    button.setAccessibleText(texts.get(down ? "side.index.down" : "side.index.up", label));
    button.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          boolean left = event.getCode() == KeyCode.LEFT;
          if (event.isAltDown() && (left || event.getCode() == KeyCode.RIGHT)) {
            move(table, index, field, left ? -1 : 1);
            event.consume();
          }
        });
    return button;
  }

  private void turn(Table table, Index index, FieldId field) {
    var down = new HashSet<>(index.descending());
    if (!down.remove(field)) {
      down.add(field);
    }
    model.changeIndex(table, index.withDescending(down));
  }

  private void move(Table table, Index index, FieldId field, int by) {
    List<FieldId> fields = new ArrayList<>(index.fields());
    int to = fields.indexOf(field) + by;
    if (to >= 0 && to < fields.size()) {
      fields.remove(field);
      fields.add(to, field);
      model.changeIndex(table, index.withFields(fields));
    }
  }
}
