package joiner.desktop.shape;

import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.StarterHome;
import joiner.desktop.work.Workbench;
import joiner.model.Field;

/** Where tables to begin with are picked: groups and tables, beside the fields of one. */
final class StartersPane {
  private static final double TABLES_WIDTH = 240;

  private final StartersModel model;
  private final Texts texts;
  private final Runnable close;
  private final ListView<StartersModel.Line> tables = new ListView<>();
  private final ListView<Field> fields = new ListView<>();
  private final CheckBox parents = new CheckBox();
  private final VBox said = new VBox(3);
  private final Button add;
  private final VBox node;

  /**
   * Nothing picked yet.
   *
   * @param close goes back to where one came from
   */
  StartersPane(Workbench bench, Texts texts, Runnable close) {
    this.model = new StartersModel(bench, texts);
    this.texts = texts;
    this.close = close;
    add = Parts.button("", this::add, "main");
    add.setId("starters-add");
    Button back = Parts.button(texts.get("list.close"), close);
    back.setId("starters-close");
    tables.setId("starter-tables");
    tables.setAccessibleText(texts.get("starters.tables"));
    tables.setCellFactory(view -> new TableCell());
    tables.getSelectionModel().selectedItemProperty().subscribe(line -> showFields());
    tables.addEventFilter(KeyEvent.KEY_PRESSED, event -> space(event, this::pickChosen));
    fields.setId("starter-fields");
    fields.setAccessibleText(texts.get("starters.fields"));
    fields.setPlaceholder(Parts.prose(texts.get("starters.none"), "muted"));
    fields.setCellFactory(view -> new FieldCell());
    fields.addEventFilter(KeyEvent.KEY_PRESSED, event -> space(event, this::wantChosen));
    parents.setId("starter-parents");
    parents.setText(texts.get("starters.parents"));
    parents.setWrapText(true);
    parents.setOnAction(event -> model.bringParents(parents.isSelected()));
    node = layOut(back);
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
    model.changesProperty().subscribe(count -> show());
  }

  private static void space(KeyEvent event, Runnable deed) {
    if (event.getCode() == KeyCode.SPACE
        || event.getCode() == KeyCode.ENTER && !event.isShortcutDown()) {
      deed.run();
      event.consume();
    }
  }

  private VBox layOut(Button back) {
    var left = new VBox(6, Parts.label(texts.get("starters.tables"), "strong"), tables);
    var right = new VBox(6, Parts.label(texts.get("starters.fields"), "strong"), fields);
    VBox.setVgrow(tables, Priority.ALWAYS);
    VBox.setVgrow(fields, Priority.ALWAYS);
    left.setMinWidth(TABLES_WIDTH);
    left.setPrefWidth(TABLES_WIDTH);
    right.setMinWidth(0);
    HBox.setHgrow(right, Priority.ALWAYS);
    var both = new HBox(16, left, right);
    VBox.setVgrow(both, Priority.ALWAYS);
    var all =
        new VBox(
            10,
            Parts.prose(texts.get("starters.title"), "title"),
            Parts.prose(texts.get("starters.why", StarterHome.own()), "muted"),
            both,
            parents,
            said,
            Parts.row(8, add, back));
    VBox.setVgrow(all, Priority.ALWAYS);
    return all;
  }

  Node node() {
    return node;
  }

  /** Begins to pick. */
  void begin() {
    model.read();
    show();
    tables.requestFocus();
  }

  private Optional<StartersModel.Line> chosen() {
    return Optional.ofNullable(tables.getSelectionModel().getSelectedItem())
        .filter(line -> line.table().isPresent());
  }

  private void pickChosen() {
    chosen().ifPresent(line -> model.pick(line, !model.isPicked(line)));
  }

  private void wantChosen() {
    Field field = fields.getSelectionModel().getSelectedItem();
    chosen()
        .filter(line -> field != null && !model.isFixed(line, field))
        .ifPresent(line -> model.want(line, field, !model.isWanted(line, field)));
  }

  private void show() {
    if (!tables.getItems().equals(model.lines())) {
      tables.getItems().setAll(model.lines());
      if (!tables.getItems().isEmpty()) {
        tables.getSelectionModel().select(1);
      }
    }
    tables.refresh();
    fields.refresh();
    parents.setSelected(model.withParents());
    int count = model.count();
    add.setText(texts.get(count == 1 ? "starters.add.one" : "starters.add", count));
    add.setDisable(count == 0);
    String renamed = model.renamed();
    said.getChildren().clear();
    if (!renamed.isEmpty()) {
      said.getChildren().add(Parts.prose(renamed, "oak", "small"));
    }
  }

  private void showFields() {
    if (chosen().isEmpty()) {
      fields.getItems().clear();
    } else {
      fields.getItems().setAll(model.table(chosen().get()).fields());
    }
  }

  private void add() {
    if (!add.isDisabled() && model.add()) {
      close.run();
    }
  }

  /** A table with a box to tick, or the name of a group. */
  private final class TableCell extends ListCell<StartersModel.Line> {
    @Override
    protected void updateItem(StartersModel.Line line, boolean empty) {
      super.updateItem(line, empty);
      setText(null);
      setGraphic(null);
      setDisable(false);
      if (empty || line == null) {
        return;
      }
      if (line.table().isEmpty()) {
        setGraphic(Parts.label(line.heading(), "heading"));
        return;
      }
      var box = new CheckBox(model.table(line).label());
      box.setFocusTraversable(false);
      box.setSelected(model.isPicked(line));
      box.setIndeterminate(model.comesAlong(line));
      box.setOnAction(
          event -> {
            tables.getSelectionModel().select(line);
            model.pick(line, !model.isPicked(line));
          });
      setGraphic(box);
    }
  }

  /** A field with a box to tick and what it holds. */
  private final class FieldCell extends ListCell<Field> {
    @Override
    protected void updateItem(Field field, boolean empty) {
      super.updateItem(field, empty);
      setText(null);
      setGraphic(null);
      Optional<StartersModel.Line> line = chosen();
      if (empty || field == null || line.isEmpty()) {
        return;
      }
      var box = new CheckBox(field.label());
      box.setFocusTraversable(false);
      box.setSelected(model.isWanted(line.get(), field));
      box.setDisable(model.isFixed(line.get(), field));
      box.setOnAction(event -> model.want(line.get(), field, box.isSelected()));
      setGraphic(
          Parts.row(
              8,
              box,
              Parts.spring(),
              Parts.label(model.holds(line.get(), field), "muted", "small")));
    }
  }
}
