package joiner.desktop.shape;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableView;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import joiner.desktop.widget.CellEditor;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.GroupId;
import joiner.model.Table;

/** The fields of a table as a grid to type in; the last line waits for a new field. */
final class FieldGrid {
  /** Below this the columns cannot be read side by side. */
  private static final double NARROW = 660;

  /** From this on there is room for names beside labels. */
  private static final double ROOMY = 860;

  /** So many lines are in sight at most; more scroll. */
  private static final int LINES_SHOWN = 12;

  private final Workbench bench;
  private final FieldsModel model;
  private final Texts texts;
  private final TableView<FieldLine> grid = new TableView<>();
  private final CellEditor<FieldLine> editor = new CellEditor<>(grid);
  private final FieldColumns columns;
  private final Consumer<Field> seeCells;
  private final Consumer<String> list;
  private boolean filling;
  private boolean scrolls;
  // After a field was typed the last line waits, while the sheet shows the field just made: so
  // long as this is what is chosen.
  private Optional<Selection> typedLast = Optional.empty();
  private Optional<Headed> headed = Optional.empty();
  private Selection seen = Selection.NONE;

  /** The heading of a group is chosen so long as this is what is chosen everywhere. */
  private record Headed(GroupId group, Selection selection) {}

  /**
   * A grid of no table yet.
   *
   * @param rows the rows of the table shown
   * @param seeCells goes to the cells of a field
   * @param list shows a pasted list of fields before they are added
   */
  FieldGrid(
      Workbench bench,
      FieldsModel model,
      SampleModel rows,
      Texts texts,
      Consumer<Field> seeCells,
      Consumer<String> list) {
    this.bench = bench;
    this.model = model;
    this.texts = texts;
    this.seeCells = seeCells;
    this.list = list;
    grid.setId("field-grid");
    grid.getStyleClass().add("field-grid");
    grid.fixedCellSizeProperty().subscribe(size -> size());
    grid.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
    grid.getSelectionModel().selectedItemProperty().subscribe(this::picked);
    columns = new FieldColumns(model, rows, texts, editor, new InGrid());
    grid.getColumns().setAll(columns.all());
    grid.widthProperty().subscribe(width -> fit(width.doubleValue()));
    editor.whenDeleted(() -> model.remove(chosen()));
    editor.whenMoved(this::move);
    editor.whenSeveralPasted(this::take);
    grid.addEventHandler(KeyEvent.KEY_PRESSED, this::pressed);
    grid.getSelectionModel()
        .getSelectedIndices()
        .addListener((ListChangeListener<Integer>) change -> tellChosen());
  }

  private void pressed(KeyEvent event) {
    if (event.isShortcutDown() && event.getCode() == KeyCode.C && !chosen().isEmpty()) {
      var content = new ClipboardContent();
      content.putString(model.clipboard().copy(chosen()));
      Clipboard.getSystemClipboard().setContent(content);
      event.consume();
    } else if (event.isShortcutDown() && !event.isShiftDown() && event.getCode() == KeyCode.V) {
      paste();
      event.consume();
    }
  }

  /** Adds what was copied here at once; any other list is shown first. */
  void paste() {
    take(Optional.ofNullable(Clipboard.getSystemClipboard().getString()).orElse(""));
  }

  private void take(String text) {
    if (!model.clipboard().paste(text)) {
      list.accept(text);
    }
  }

  /** What columns ask of the grid. */
  private final class InGrid implements FieldColumns.Deeds {
    @Override
    public void add(String label) {
      model.add(label);
      show(bench.design().table(model.table().id()));
      typeOn();
    }

    @Override
    public List<Field> targets(Field field) {
      List<Field> chosen = chosen();
      boolean among = chosen.stream().anyMatch(other -> other.id().equals(field.id()));
      return among ? chosen : List.of(field);
    }

    @Override
    public Optional<Field> above(Field field) {
      int place = model.table().fieldIds().indexOf(field.id());
      return place > 0 ? Optional.of(model.table().fields().get(place - 1)) : Optional.empty();
    }

    @Override
    public void seeCells(Field field) {
      seeCells.accept(field);
    }

    @Override
    public void refresh() {
      grid.refresh();
    }

    @Override
    public void fold(FieldGroup group) {
      model.groups().fold(model.table(), group);
      headed = Optional.of(new Headed(group.id(), now()));
      fill(model.table());
    }
  }

  Node node() {
    return editor;
  }

  /** Shows again what rows hold and what stands for defaults and types. */
  void refresh() {
    grid.refresh();
  }

  void show(Table shown) {
    if (!model.turnTo(shown)) {
      select(chosen().stream().map(Field::id).toList());
      return;
    }
    grid.setAccessibleText(texts.get("grid", shown.label()));
    fill(shown);
  }

  private void fill(Table shown) {
    filling = true;
    List<FieldId> chosen = chosen().stream().map(Field::id).toList();
    grid.getItems().setAll(model.groups().lines(shown));
    filling = false;
    size();
    select(chosen);
  }

  /** Fills the room there is; where it is too little the columns keep their widths and scroll. */
  private void fit(double width) {
    boolean narrow = width > 0 && width < NARROW;
    columns.name().setVisible(width >= ROOMY);
    grid.setColumnResizePolicy(
        narrow
            ? TableView.UNCONSTRAINED_RESIZE_POLICY
            : TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
    scrolls = narrow;
    size();
  }

  /** As high as its lines, up to a dozen; how high a line is depends on the size of the text. */
  private void size() {
    double row = Math.max(grid.getFixedCellSize(), 26);
    double bar = scrolls ? row * 0.8 : 0;
    double height = row * 1.15 + row * Math.min(grid.getItems().size(), LINES_SHOWN) + 4 + bar;
    grid.setPrefHeight(height);
    grid.setMinHeight(Math.min(height, row * 9));
    grid.getColumns().stream().limit(1).forEach(key -> key.setMinWidth(row * 1.6));
  }

  /** Selects the field that is chosen everywhere, and the others that were chosen with it. */
  private void select(List<FieldId> before) {
    boolean another = !now().equals(seen);
    seen = now();
    if (another && now().field().filter(model.groups().unfolded(model.table())).isPresent()) {
      fill(model.table());
      return;
    }
    if (typedLast.equals(Optional.of(bench.selectionProperty().get()))) {
      stand(grid.getItems().size() - 1);
      return;
    }
    Optional<FieldId> wanted = bench.selectionProperty().get().field();
    List<FieldId> all =
        wanted.filter(before::contains).isPresent() ? before : wanted.stream().toList();
    Optional<GroupId> heading = headed.filter(at -> at.selection.equals(now())).map(Headed::group);
    int[] places =
        (heading.isPresent() ? heading.stream() : all.stream())
            .mapToInt(this::placeOf)
            .filter(i -> i >= 0)
            .toArray();
    int now =
        heading.isPresent() && places.length > 0 ? places[0] : wanted.map(this::placeOf).orElse(-1);
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
    tellChosen();
  }

  private Selection now() {
    return bench.selectionProperty().get();
  }

  /** The line of a field or of a group's heading; -1 where it is not shown. */
  private int placeOf(Object key) {
    List<FieldLine> lines = grid.getItems();
    for (int i = 0; i < lines.size(); i++) {
      if (lines.get(i).key().equals(key)) {
        return i;
      }
    }
    return -1;
  }

  private void tellChosen() {
    if (!filling) {
      model.choose(chosen().stream().map(Field::id).toList());
    }
  }

  private void stand(int line) {
    filling = true;
    if (grid.getSelectionModel().getSelectedIndex() != line
        || grid.getSelectionModel().getSelectedIndices().size() != 1) {
      grid.getSelectionModel().clearAndSelect(line);
      grid.scrollTo(line);
    }
    filling = false;
    tellChosen();
  }

  /** Puts the cursor on the line that waits for a new field. */
  void typeOn() {
    typedLast = Optional.of(bench.selectionProperty().get());
    stand(grid.getItems().size() - 1);
    editor.standIn(columns.label());
    grid.requestFocus();
  }

  private void picked(FieldLine line) {
    if (!filling && line != null) {
      headed = line.heading().map(group -> new Headed(group.id(), now()));
    }
    if (!filling && line != null && line.isNew()) {
      typedLast = Optional.of(bench.selectionProperty().get());
    }
    if (!filling && line != null && line.field().isPresent()) {
      typedLast = Optional.empty();
      bench.selectionProperty().set(Selection.of(model.table().id(), line.field().get().id()));
    }
  }

  /** The fields chosen, in the order of the table. */
  List<Field> chosen() {
    return grid.getSelectionModel().getSelectedItems().stream()
        .flatMap(
            line ->
                line.heading()
                    .map(group -> group.fields().stream().map(model.table()::field))
                    .orElseGet(line.field()::stream))
        .distinct()
        .toList();
  }

  /** Moves the chosen field by so many places. */
  void move(int by) {
    Optional<FieldGroup> heading =
        Optional.ofNullable(grid.getSelectionModel().getSelectedItem()).flatMap(FieldLine::heading);
    if (heading.isPresent()) {
      model.groups().move(model.table(), heading.get(), by);
    } else {
      chosen().stream().findFirst().ifPresent(field -> model.move(field, by));
    }
  }
}
