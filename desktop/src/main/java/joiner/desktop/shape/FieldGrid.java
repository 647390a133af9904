package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import joiner.desktop.widget.CellEditor;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.TextCell;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.TypeChoice;
import joiner.expression.Formula;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;

/** The fields of a table as a grid to type in; the last line waits for a new field. */
final class FieldGrid {
  /** A line: a field, or the empty one at the end. */
  private record Line(Optional<Field> field) {}

  /** Below this the columns cannot be read side by side. */
  private static final double NARROW = 690;

  private final Workbench bench;
  private final FieldsModel model;
  private final Texts texts;
  private final TableView<Line> grid = new TableView<>();
  private final CellEditor<Line> editor = new CellEditor<>(grid);
  private final HBox tools;
  private final Label several = Parts.shortened("", "muted");
  private boolean filling;
  private boolean scrolls;
  // After a field was typed the last line waits, while the sheet shows the field just made: so
  // long as this is what is chosen.
  private Optional<Selection> typedLast = Optional.empty();

  FieldGrid(Workbench bench, FieldsModel model, Texts texts) {
    this.bench = bench;
    this.model = model;
    this.texts = texts;
    grid.setId("field-grid");
    grid.getStyleClass().add("field-grid");
    grid.fixedCellSizeProperty().subscribe(size -> size());
    grid.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
    grid.getSelectionModel().selectedItemProperty().subscribe(this::picked);
    build();
    var key = Parts.button(texts.get("key.toggle"), this::toggleKey);
    key.setId("toggle-key");
    tools =
        Parts.row(
            8,
            key,
            Parts.button(texts.get("field.up"), () -> move(-1)),
            Parts.button(texts.get("field.down"), () -> move(1)),
            Parts.button(texts.get("field.remove"), () -> model.remove(chosen())),
            several);
    several.setId("several-fields");
    grid.getSelectionModel()
        .getSelectedIndices()
        .addListener((ListChangeListener<Integer>) change -> sayHowMany());
  }

  Node node() {
    return editor;
  }

  Node tools() {
    return tools;
  }

  void show(Table shown) {
    if (!model.turnTo(shown)) {
      select(chosen().stream().map(Field::id).toList());
      return;
    }
    grid.setAccessibleText(texts.get("grid", shown.label()));
    filling = true;
    List<FieldId> chosen = chosen().stream().map(Field::id).toList();
    var lines = new ArrayList<Line>();
    shown.fields().forEach(field -> lines.add(new Line(Optional.of(field))));
    lines.add(new Line(Optional.empty()));
    grid.getItems().setAll(lines);
    filling = false;
    size();
    select(chosen);
  }

  /** Fills the room there is; where it is too little the columns keep their widths and scroll. */
  private void fit(double width) {
    boolean narrow = width > 0 && width < NARROW;
    grid.setColumnResizePolicy(
        narrow
            ? TableView.UNCONSTRAINED_RESIZE_POLICY
            : TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
    scrolls = narrow;
    size();
  }

  /** As high as its lines, up to a dozen; how high a line is depends on the size of the text. */
  private void size() {
    double row = Math.max(grid.getFixedCellSize(), 27);
    double bar = scrolls ? row * 0.8 : 0;
    double height = row * 1.2 + row * Math.min(grid.getItems().size(), 12) + 4 + bar;
    grid.setPrefHeight(height);
    grid.setMinHeight(Math.min(height, row * 12.2));
    grid.getColumns().stream().limit(1).forEach(key -> key.setMinWidth(row * 1.7));
  }

  /** Selects the field that is chosen everywhere, and the others that were chosen with it. */
  private void select(List<FieldId> before) {
    if (typedLast.equals(Optional.of(bench.selectionProperty().get()))) {
      stand(grid.getItems().size() - 1);
      return;
    }
    Optional<FieldId> wanted = bench.selectionProperty().get().field();
    List<FieldId> all =
        wanted.filter(before::contains).isPresent() ? before : wanted.stream().toList();
    int[] places =
        all.stream().mapToInt(model.table().fieldIds()::indexOf).filter(i -> i >= 0).toArray();
    int now = wanted.map(model.table().fieldIds()::indexOf).orElse(-1);
    filling = true;
    if (!grid.getSelectionModel()
        .getSelectedIndices()
        .equals(Arrays.stream(places).boxed().toList())) {
      grid.getSelectionModel().clearSelection();
      if (places.length > 0) {
        grid.getSelectionModel().selectIndices(places[0], places);
      }
    }
    if (now >= 0 && places.length < 2) {
      grid.getFocusModel().focus(now);
    }
    filling = false;
  }

  private void stand(int line) {
    filling = true;
    if (grid.getSelectionModel().getSelectedIndex() != line
        || grid.getSelectionModel().getSelectedIndices().size() != 1) {
      grid.getSelectionModel().clearAndSelect(line);
      grid.scrollTo(line);
    }
    filling = false;
  }

  /** Puts the cursor on the line that waits for a new field. */
  void typeOn() {
    typedLast = Optional.of(bench.selectionProperty().get());
    stand(grid.getItems().size() - 1);
    editor.standIn(grid.getColumns().get(1));
    grid.requestFocus();
  }

  private void picked(Line line) {
    if (!filling && line != null && line.field().isEmpty()) {
      typedLast = Optional.of(bench.selectionProperty().get());
    }
    if (!filling && line != null && line.field().isPresent()) {
      typedLast = Optional.empty();
      bench.selectionProperty().set(Selection.of(model.table().id(), line.field().get().id()));
    }
  }

  private void build() {
    var key = text("key", 40, model::tag, Optional.empty());
    key.setCellFactory(column -> styled("key-tag"));
    grid.getColumns().add(key);
    grid.getColumns().add(text("label", 116, Field::label, Optional.of(model::relabel)));
    grid.getColumns().add(text("name", 104, Field::name, Optional.of(model::rename)));
    grid.getColumns().add(type());
    grid.getColumns()
        .add(text("size", 62, field -> TypeChoice.sizeOf(field.type()), Optional.of(this::resize)));
    grid.getColumns().add(dot("required", model::isRequired, model::require));
    grid.getColumns().add(dot("unique", model::isUnique, model::setUnique));
    grid.getColumns()
        .add(
            text(
                "default",
                92,
                field -> field.defaultValue().map(Formula::text).orElse(""),
                Optional.of(this::changeDefault)));
    grid.getColumns().add(text("note", 96, Field::description, Optional.of(model::note)));
    explain("key", "Primary key");
    explain("name", "Label and name");
    explain("required", "Required");
    explain("unique", "Unique");
    explain("default", "Default");
    grid.widthProperty().subscribe(width -> fit(width.doubleValue()));
    editor.homeIs(grid.getColumns().get(1));
    editor.passOver(grid.getColumns().get(2)); // A name follows its label.
    editor.whenDeleted(() -> model.remove(chosen()));
    editor.whenMoved(this::move);
  }

  /** The head of a column tells what its word means. */
  private void explain(String column, String word) {
    String text = texts.get("column." + column);
    grid.getColumns().stream()
        .filter(c -> c.getText().equals(text))
        .forEach(
            c -> {
              c.setGraphic(Terms.explain(Parts.label(text), word, Glossary.meaning(word)));
              c.setText("");
            });
  }

  private TableColumn<Line, String> text(
      String key,
      double width,
      Function<Field, String> value,
      Optional<BiConsumer<Field, String>> change) {
    var column = new TableColumn<Line, String>(texts.get("column." + key));
    column.setPrefWidth(width);
    column.setSortable(false);
    column.setReorderable(false);
    column.setEditable(false);
    boolean first = key.equals("label");
    column.setCellValueFactory(
        line ->
            new ReadOnlyStringWrapper(
                line.getValue().field().map(value).orElse(first ? texts.get("prompt") : "")));
    change.ifPresent(
        changed -> {
          column.setCellFactory(c -> new TextCell<>(line -> line.field().isEmpty()));
          editor.type(
              column,
              line -> first || line.field().isPresent(),
              line -> line.field().map(value).orElse(""),
              (line, typed) -> commit(line, typed, changed));
        });
    return column;
  }

  private void commit(Line line, String typed, BiConsumer<Field, String> change) {
    if (line.field().isPresent()) {
      change.accept(line.field().get(), typed);
    } else if (!typed.isBlank()) {
      add(typed.strip());
    }
  }

  private void add(String label) {
    model.add(label);
    show(bench.design().table(model.table().id()));
    typeOn();
  }

  private static TableCell<Line, String> styled(String style) {
    var cell =
        new TableCell<Line, String>() {
          @Override
          protected void updateItem(String text, boolean empty) {
            super.updateItem(text, empty);
            setText(empty ? null : text);
          }
        };
    cell.getStyleClass().add(style);
    return cell;
  }

  private TableColumn<Line, String> type() {
    var column = new TableColumn<Line, String>(texts.get("column.type"));
    column.setPrefWidth(132);
    column.setSortable(false);
    column.setReorderable(false);
    column.setCellValueFactory(
        line -> new ReadOnlyStringWrapper(line.getValue().field().map(model::type).orElse("")));
    column.setCellFactory(c -> new TypeCell());
    editor.act(
        column,
        line -> line.field().isPresent(),
        line -> line.field().map(model::type).orElse(""),
        (line, text) ->
            line.field().ifPresent(field -> above(field).ifPresent(f -> model.retypeAs(field, f))),
        (cell, line, letter) -> line.field().ifPresent(field -> pickType(cell, field, letter)));
    return column;
  }

  private TableColumn<Line, String> dot(
      String key, Function<Field, Boolean> on, BiConsumer<List<Field>, Boolean> set) {
    var column = new TableColumn<Line, String>(texts.get("column." + key));
    column.setPrefWidth(70);
    column.setEditable(false);
    column.setSortable(false);
    column.setReorderable(false);
    column.setCellValueFactory(
        line ->
            new ReadOnlyStringWrapper(
                line.getValue().field().map(field -> on.apply(field) ? "●" : "").orElse("")));
    editor.toggle(
        column,
        line -> line.field().isPresent(),
        line -> line.field().filter(on::apply).map(field -> "●").orElse(""),
        line -> line.field().ifPresent(field -> set.accept(targets(field), !on.apply(field))));
    column.setCellFactory(
        c -> {
          var cell = styled("dot");
          cell.setOnMouseClicked(
              event ->
                  Optional.ofNullable(cell.getTableRow().getItem())
                      .flatMap(Line::field)
                      .ifPresent(field -> set.accept(targets(field), !on.apply(field))));
          return cell;
        });
    return column;
  }

  private void resize(Field field, String size) {
    if (!model.resize(targets(field), size)) {
      grid.refresh();
    }
  }

  private List<Field> chosen() {
    return grid.getSelectionModel().getSelectedItems().stream()
        .map(Line::field)
        .flatMap(Optional::stream)
        .toList();
  }

  /** What is done to a field is done to all that are chosen with it. */
  private List<Field> targets(Field field) {
    List<Field> chosen = chosen();
    boolean among = chosen.stream().anyMatch(other -> other.id().equals(field.id()));
    return among ? chosen : List.of(field);
  }

  private void changeDefault(Field field, String text) {
    model.changeDefault(targets(field), text);
  }

  private void sayHowMany() {
    int count = chosen().size();
    several.setText(count < 2 ? "" : texts.get("several", count));
  }

  private void toggleKey() {
    model.toggleKey(chosen());
  }

  private void move(int by) {
    chosen().stream().findFirst().ifPresent(field -> model.move(field, by));
  }

  /** What can be done with the chosen field. */
  List<Command> commands() {
    var commands = new ArrayList<Command>();
    for (Field field : chosen()) {
      commands.add(Command.of(texts.get("key.command", field.label()), this::toggleKey));
      commands.add(
          new Command(
              texts.get("remove.command", field.label()),
              "",
              Command.Sort.REMOVAL,
              () -> model.remove(List.of(field))));
    }
    return commands;
  }

  private Optional<Field> above(Field field) {
    int place = model.table().fieldIds().indexOf(field.id());
    return place > 0 ? Optional.of(model.table().fields().get(place - 1)) : Optional.empty();
  }

  private void pickType(Node cell, Field field, String begun) {
    Picker.open(
        cell,
        texts.get("type.pick"),
        List.of(TypeChoice.values()),
        TypeChoice.of(field.type()),
        choice -> texts.get("type." + choice.name()),
        begun,
        (choice, size) -> model.retype(targets(field), choice, size),
        editor::goOn);
  }

  /** A type, picked from a list beside it. */
  private final class TypeCell extends TableCell<Line, String> {
    TypeCell() {
      setOnMouseClicked(
          event -> {
            if (event.getClickCount() == 2) {
              Optional.ofNullable(getTableRow().getItem())
                  .flatMap(Line::field)
                  .ifPresent(field -> pickType(this, field, ""));
            }
          });
    }

    @Override
    protected void updateItem(String text, boolean empty) {
      super.updateItem(text, empty);
      setText(empty ? null : text);
    }
  }
}
