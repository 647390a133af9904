package joiner.desktop.shape;

import java.util.function.Function;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.desktop.work.Workbench;

/** Where a list of fields or tables is pasted or typed, beside what it becomes. */
final class ListPane {
  private final ListModel model;
  private final Texts texts;
  private final Runnable close;
  private final TextArea text = new TextArea();
  private final TableView<ListModel.Line> preview = new TableView<>();
  private final VBox remarks = new VBox(3);
  private final Button add;
  private final VBox node;

  /**
   * An empty list.
   *
   * @param close goes back to where one came from
   */
  ListPane(Workbench bench, Texts texts, Runnable close) {
    this.model = new ListModel(bench, texts);
    this.texts = texts;
    this.close = close;
    buildText();
    buildPreview();
    add = Parts.button("", this::add, "main");
    add.setId("list-add");
    Button back = Parts.button(texts.get("list.close"), close);
    back.setId("list-close");
    node = layOut(add, back);
    node.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            close.run();
            event.consume();
          } else if (event.getCode() == KeyCode.ENTER && event.isShortcutDown()) {
            add();
            event.consume();
          }
        });
    text.textProperty().subscribe(this::read);
  }

  private void buildText() {
    text.setId("list-text");
    text.setPromptText(texts.get("list.prompt"));
    text.setAccessibleText(texts.get("list.text"));
    text.getStyleClass().add("mono");
    text.setWrapText(true);
    TypedText.leaveWithTab(text);
  }

  private void buildPreview() {
    preview.setId("list-preview");
    preview.setAccessibleText(texts.get("list.becomes"));
    preview.setPlaceholder(Parts.prose(texts.get("list.nothing"), "muted"));
    preview.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
    preview.setRowFactory(view -> new LineRow());
    preview.getColumns().add(column("label", 150, ListPane::label));
    preview.getColumns().add(column("type", 110, ListModel.Line::type));
    preview.getColumns().add(column("size", 56, ListModel.Line::size));
    preview.getColumns().add(column("required", 70, line -> line.required() ? "●" : ""));
    preview.getColumns().add(column("unique", 60, line -> line.unique() ? "●" : ""));
  }

  private VBox layOut(Button add, Button back) {
    var left = new VBox(6, Parts.label(texts.get("list.text"), "strong"), text);
    var right = new VBox(6, Parts.label(texts.get("list.becomes"), "strong"), preview);
    VBox.setVgrow(text, Priority.ALWAYS);
    VBox.setVgrow(preview, Priority.ALWAYS);
    left.setMinWidth(180);
    left.setPrefWidth(280);
    right.setMinWidth(0);
    HBox.setHgrow(right, Priority.ALWAYS);
    var both = new HBox(16, left, right);
    VBox.setVgrow(both, Priority.ALWAYS);
    var all =
        new VBox(
            10,
            Parts.prose(texts.get("list.title"), "title"),
            Parts.prose(texts.get("list.why"), "muted"),
            both,
            remarks,
            Parts.row(8, add, back));
    VBox.setVgrow(all, Priority.ALWAYS);
    return all;
  }

  Node node() {
    return node;
  }

  /** Begins with a list; where there is one, Enter adds it. */
  void begin(String list) {
    text.setText(list);
    read(list); // What it becomes hangs on the table chosen, too.
    if (list.isBlank()) {
      text.requestFocus();
    } else {
      add.requestFocus();
    }
  }

  private void read(String list) {
    model.read(list);
    preview.getItems().setAll(model.lines());
    add.setText(model.deed());
    add.setDisable(!model.canAdd());
    remarks
        .getChildren()
        .setAll(model.remarks().stream().map(r -> Parts.prose(r, "oak", "small")).toList());
  }

  private void add() {
    if (!add.isDisabled() && model.add()) {
      text.clear();
      close.run();
    }
  }

  /** The line of a table stands out from those of its fields. */
  private static final class LineRow extends TableRow<ListModel.Line> {
    @Override
    protected void updateItem(ListModel.Line line, boolean empty) {
      super.updateItem(line, empty);
      getStyleClass().remove("table-line");
      if (!empty && line != null && !line.table().isEmpty()) {
        getStyleClass().add("table-line");
      }
    }
  }

  private static String label(ListModel.Line line) {
    return line.table().isEmpty() ? "    " + line.label() : line.table();
  }

  private TableColumn<ListModel.Line, String> column(
      String key, double width, Function<ListModel.Line, String> value) {
    var column = new TableColumn<ListModel.Line, String>(texts.get("column." + key));
    column.setPrefWidth(width);
    column.setSortable(false);
    column.setReorderable(false);
    column.setCellValueFactory(line -> new ReadOnlyStringWrapper(value.apply(line.getValue())));
    return column;
  }
}
