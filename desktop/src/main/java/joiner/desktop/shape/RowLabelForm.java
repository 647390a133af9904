package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextArea;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.expression.Formula;
import joiner.model.Table;

/** The label of a table's rows: typed, or put together from pieces, with what it gives. */
final class RowLabelForm {
  private final RowLabelModel model;
  private final Texts texts;

  RowLabelForm(RowLabelModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
  }

  /**
   * The form.
   *
   * @param change told of the label once it is typed
   */
  List<Node> of(Table table, Consumer<String> change) {
    String now = table.rowLabel().map(Formula::text).orElse("");
    var label = new TextArea(now);
    label.setId("table-rowLabel");
    label.setWrapText(true);
    label.setPrefRowCount(2);
    TypedText.settle(label, () -> now, text -> change.accept(onOneLine(text)));
    TypedText.leaveWithTab(label);
    var gives = new VBox(2);
    gives.setId("table-labels");
    label.textProperty().subscribe(text -> show(table, onOneLine(text), gives));
    Button piece = Parts.button(texts.get("label.piece"), () -> {});
    piece.setId("table-labelPiece");
    piece.setOnAction(
        event ->
            new Picker<>(texts.get("label.pick"), model.pieces(table))
                .open(piece, picked -> model.add(table, picked)));
    return List.of(Parts.labelled(texts.get("side.table.rowLabel"), label), gives, piece);
  }

  private static String onOneLine(String text) {
    return text.replace('\n', ' ');
  }

  private void show(Table table, String text, VBox gives) {
    RowLabelModel.Gives found = model.gives(table, text);
    var lines = new ArrayList<Node>();
    if (!found.labels().isEmpty()) {
      lines.add(Parts.prose(String.join(" / ", found.labels()), "muted", "small"));
    }
    if (!found.remark().isEmpty()) {
      lines.add(Parts.prose(found.remark(), found.isWrong() ? "brick" : "oak", "small"));
    }
    gives.getChildren().setAll(lines);
  }
}
