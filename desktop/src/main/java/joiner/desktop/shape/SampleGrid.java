package joiner.desktop.shape;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import javafx.beans.binding.Bindings;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.collections.ObservableList;
import javafx.scene.Node;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.FileChooser;
import joiner.desktop.widget.CellEditor;
import joiner.desktop.widget.HueMark;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.TextCell;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenLaidOut;
import joiner.desktop.work.Workbench;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Listing.By;
import joiner.model.Table;
import joiner.naming.Counts;

/** The sample rows of a table; cells that break the design are marked. */
public final class SampleGrid {
  /** What rows are called by is longer than their keys. */
  private static final double LABEL_WIDTH = 150;

  private final SampleModel model;
  private final Texts texts = Texts.beside(SampleGrid.class);
  private final TableView<Integer> grid = new TableView<>();
  private final CellEditor<Integer> editor = new CellEditor<>(grid);
  private final TextField filter = new TextField();
  private Optional<Table> shown = Optional.empty();

  /** Counts how often more became known of the rows, which cells follow. */
  private final IntegerProperty known = new SimpleIntegerProperty();

  /** What to bring into sight when its row was read. */
  private Optional<Sight> awaited = Optional.empty();

  private record Sight(int row, List<FieldId> fields) {}

  /** A grid of no table yet. */
  public SampleGrid(Workbench bench) {
    this.model = new SampleModel(bench, texts);
    grid.setId("sample-grid");
    grid.setMinHeight(120);
    grid.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
    grid.setAccessibleText(texts.get("rows.title"));
    grid.setSortPolicy(view -> sort());
    model.placesProperty().subscribe(places -> grid.getItems().setAll(places));
    model.whenRead(() -> shown.ifPresent(this::show));
    model.whenKnown(this::known);
    editor.whenDeleted(editor::clear);
    editor.whenPastEnd(this::addAtEnd);
    filter.setId("row-filter");
    filter.setPromptText(texts.get("rows.filter"));
    filter.setAccessibleText(texts.get("rows.filter"));
    filter.setPrefColumnCount(12);
    filter.setMinWidth(96);
    filter.textProperty().subscribe(model::filter);
    filter.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            filter.clear();
            event.consume();
          }
        });
  }

  /** A grid that draws its cells anew may leave some as they were; each follows by itself. */
  private void known() {
    known.set(known.get() + 1);
    grid.refresh();
  }

  /** Where one types what rows are looked for; it goes with the rows. */
  TextField filter() {
    return filter;
  }

  /** By the headings that were clicked; the rows come in their order when it is worked out. */
  private boolean sort() {
    model.sort(
        grid.getSortOrder().stream()
            .map(
                column ->
                    new By(
                        (FieldId) column.getUserData(),
                        column.getSortType() == TableColumn.SortType.DESCENDING))
            .toList());
    return true;
  }

  /** The grid. */
  public Node node() {
    return editor;
  }

  SampleModel model() {
    return model;
  }

  /** Places of the rows chosen, from 0. */
  ObservableList<Integer> chosen() {
    return grid.getSelectionModel().getSelectedItems();
  }

  /** Adds a row, which is in sight whatever was looked for. */
  void add() {
    filter.clear();
    grid.getSortOrder().clear();
    model.edits().add();
    reveal(model.count() - 1, List.of());
  }

  /**
   * One more row for who goes on past the last; none where rows are looked for or stay in a file.
   */
  private boolean addAtEnd() {
    if (model.isOrdered() || model.link().isPresent()) {
      return false;
    }
    int before = model.count();
    add();
    return model.count() > before;
  }

  /** Removes the rows chosen, as one change. */
  void removeChosen() {
    model.edits().remove(Set.copyOf(chosen()));
  }

  /** Shows the rows of a table. */
  public void show(Table table) {
    shown = Optional.of(table);
    boolean another = !model.isOf(table);
    if (model.turnTo(table) == SampleModel.News.COLUMNS) {
      columns();
    }
    if (another) {
      filter.clear();
    }
    grid.setPlaceholder(Parts.prose(placeholder(table), "muted"));
    if (!grid.getColumns().isEmpty()) {
      String last = Counts.of(Math.max(model.count(), model.countInFile()));
      grid.getColumns().getFirst().setPrefWidth(Math.max(52, last.length() * 7.5 + 20));
    }
    grid.refresh();
    awaited.ifPresent(
        sight -> {
          awaited = Optional.empty();
          reveal(sight.row, sight.fields);
        });
  }

  private String placeholder(Table table) {
    if (model.count() > 0) {
      return texts.get("rows.none");
    }
    if (model.link().isPresent()) {
      return model.unread().orElseGet(() -> texts.get("rows.reading"));
    }
    return texts.get(table.fields().isEmpty() ? "rows.fields" : "rows.type");
  }

  /** Brings a row into sight, with the first of those fields, and selects it. */
  public void reveal(int row, List<FieldId> fields) {
    OptionalInt shownAt = model.placeOf(row);
    if (shownAt.isEmpty()) {
      awaited = Optional.of(new Sight(row, fields)).filter(sight -> model.link().isPresent());
      return;
    }
    int place = grid.getItems().indexOf(shownAt.getAsInt());
    if (place < 0) {
      filter.clear();
      grid.getSortOrder().clear();
      place = grid.getItems().indexOf(shownAt.getAsInt());
    }
    grid.getSelectionModel().clearAndSelect(place);
    int seen = Math.max(0, place - 3);
    grid.scrollTo(seen);
    WhenLaidOut.run(grid, () -> grid.scrollTo(seen)); // Rows that just came have no place before.
    for (int i = 0; i < model.fields().size(); i++) {
      if (fields.contains(model.fields().get(i).id())) {
        FieldId field = model.fields().get(i).id();
        grid.getColumns().stream()
            .filter(column -> field.equals(column.getUserData()))
            .findFirst()
            .ifPresent(column -> WhenLaidOut.run(grid, () -> editor.frozen().reveal(column)));
        return;
      }
    }
  }

  private void columns() {
    editor.forgetColumns();
    grid.getSortOrder().clear();
    grid.getColumns().clear();
    var number = new TableColumn<Integer, String>(texts.get("row.number"));
    number.setPrefWidth(52);
    number.setCellValueFactory(
        row -> new ReadOnlyStringWrapper(Counts.of(model.number(row.getValue()))));
    number.setSortable(false);
    number.setCellFactory(
        c -> {
          var cell = new TextCell<Integer>(row -> false);
          editor.frozen().hold(cell);
          return cell;
        });
    grid.getColumns().add(number);
    model.fields().forEach(field -> grid.getColumns().add(column(field)));
  }

  /**
   * Puts the columns of some fields before all others, in their order.
   *
   * @param frozen how many of them stay in sight while one scrolls sideways
   */
  public void lead(List<FieldId> first, int frozen) {
    if (grid.getColumns().isEmpty()) {
      return;
    }
    List<FieldId> all = model.fields().stream().map(Field::id).toList();
    List<TableColumn<Integer, ?>> led =
        grid.getColumns().stream()
            .sorted(Comparator.comparing(column -> place(column.getUserData(), first, all)))
            .toList();
    if (!led.equals(grid.getColumns())) {
      grid.getColumns().setAll(led);
    }
    editor.frozen().freeze(frozen + 1); // The number of the row, too.
  }

  /** The number of the row stands before all. */
  private static int place(Object field, List<FieldId> first, List<FieldId> all) {
    int led = field instanceof FieldId id ? first.indexOf(id) : 0;
    return field == null ? -1 : led >= 0 ? led : first.size() + all.indexOf(field);
  }

  private TableColumn<Integer, String> column(Field field) {
    var column = new TableColumn<Integer, String>(field.heading());
    column.setUserData(field.id());
    column.setReorderable(false);
    column.setPrefWidth(width(field));
    column.setCellValueFactory(
        row -> Bindings.createStringBinding(() -> text(row.getValue(), field), known));
    column.setCellFactory(
        c -> {
          var cell = new TextCell<Integer>(row -> false);
          editor.frozen().hold(cell);
          Runnable mark = () -> mark(cell, field);
          cell.indexProperty().subscribe(value -> mark.run());
          cell.itemProperty().subscribe(value -> mark.run());
          return cell;
        });
    letEdit(column, field);
    return column;
  }

  /** A cell that is still drawn may be of a row that is gone. */
  private String text(int row, Field field) {
    return model.has(row) ? model.shown(row, field.id()) : "";
  }

  /** Rows and choices are picked, everything else is typed; rows of a file are only read. */
  private void letEdit(TableColumn<Integer, String> column, Field field) {
    Predicate<Integer> held = row -> model.link().isEmpty() && !field.isComputed();
    Function<Integer, String> text = row -> model.cell(row, field.id());
    if (model.isReference(field.id())) {
      editor.act(
          column,
          held,
          text,
          (row, key) -> model.edits().refer(row, field, key),
          (cell, row, letter) -> pickParent(cell, row, field, letter));
    } else if (field.type() instanceof FieldType.Choice choice) {
      editor.act(
          column,
          held,
          text,
          (row, typed) -> model.edits().choose(row, field, typed),
          (cell, row, letter) -> pickChoice(cell, row, field, choice, letter));
    } else if (field.type() instanceof FieldType.Content content) {
      editor.act(
          column,
          held,
          text,
          (row, typed) -> model.edits().type(row, field, typed),
          (cell, row, letter) -> pickFile(cell, row, field, content));
    } else {
      editor.type(
          column,
          held,
          row -> model.typed(row, field.id()),
          (row, typed) -> model.edits().type(row, field, typed));
    }
  }

  private void pickFile(Node cell, int row, Field field, FieldType.Content content) {
    FileCells files = model.files();
    new Picker<>(
            texts.get("content.pick", field.label()),
            Offers.among(files.deeds(row, field), deed -> texts.get("content." + deed)))
        .goingOn(editor::goOn)
        .open(
            cell,
            deed -> {
              switch (deed) {
                case TAKE_IN -> takeIn(row, field, content);
                case SAVE -> save(row, field, content);
                case TAKE_OUT -> files.takeOut(row, field);
              }
            });
  }

  private void takeIn(int row, Field field, FieldType.Content content) {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("content.pick", field.label()));
    List<String> endings = FileCells.endings(content);
    if (!endings.isEmpty()) {
      chooser
          .getExtensionFilters()
          .add(
              new FileChooser.ExtensionFilter(
                  texts.get("content.kinds", String.join(", ", endings)),
                  endings.stream().map(ending -> "*" + ending).toList()));
    }
    Optional.ofNullable(chooser.showOpenDialog(grid.getScene().getWindow()))
        .ifPresent(file -> model.files().takeIn(row, field, content, file.toPath()));
  }

  private void save(int row, Field field, FieldType.Content content) {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("content.SAVE"));
    chooser.setInitialFileName(model.files().name(row, field, content));
    Optional.ofNullable(chooser.showSaveDialog(grid.getScene().getWindow()))
        .ifPresent(file -> model.files().save(row, field, content, file.toPath()));
  }

  private void pickChoice(Node cell, int row, Field field, FieldType.Choice choice, String begun) {
    String now = model.cell(row, field.id());
    new Picker<>(texts.get("parent.pick", field.label()), new ChoiceOffers(texts, choice, now))
        .at(Optional.of(now))
        .begunWith(begun)
        .marked(
            text ->
                choice
                    .find(text)
                    .flatMap(FieldType.Choice.Entry::hue)
                    .map(hue -> HueMark.of(Optional.of(hue))))
        .goingOn(editor::goOn)
        .open(cell, text -> model.edits().choose(row, field, text));
  }

  private void pickParent(Node cell, int row, Field field, String begun) {
    Offers<String> offers =
        model
            .parents(field.id())
            .<Offers<String>>map(
                parents ->
                    new ParentOffers(
                        texts,
                        parents,
                        model.key(row, field.id()),
                        model.edits().mayAddParent(field.id())))
            .orElseGet(() -> typed -> List.of(Offers.Offer.of(typed, typed)));
    new Picker<>(texts.get("parent.pick", field.label()), offers)
        .at(Optional.of(model.key(row, field.id())))
        .begunWith(begun)
        .goingOn(editor::goOn)
        .open(cell, key -> model.edits().refer(row, field, key));
  }

  /** Brings the cells of a field into sight: of the first row that has something to mend in it. */
  void seeCells(FieldId field) {
    if (model.count() > 0) {
      reveal(model.firstBad(field).orElse(0), List.of(field));
    }
  }

  private void mark(TextCell<Integer> cell, Field field) {
    cell.getStyleClass().removeAll("bad", "computed");
    if (field.isComputed()) {
      cell.getStyleClass().add("computed");
    }
    Integer row = cell.getTableRow() == null ? null : cell.getTableRow().getItem();
    if (row != null && model.isBad(row, field.id())) {
      cell.getStyleClass().add("bad");
    }
    cell.setGraphic(
        row == null
            ? null
            : model.hue(row, field).map(hue -> HueMark.of(Optional.of(hue))).orElse(null));
  }

  /** Characters of what has no length of its own. */
  private static int usualLength(FieldType type) {
    return switch (type) {
      case FieldType.DateTime moment -> 20;
      case FieldType.Content file -> 16;
      default -> 11;
    };
  }

  private double width(Field field) {
    if (model.isReference(field.id())) {
      return LABEL_WIDTH;
    }
    int length = field.type().length().orElse(usualLength(field.type()));
    boolean marked =
        field.type() instanceof FieldType.Choice choice
            && choice.entries().stream().anyMatch(entry -> entry.hue().isPresent());
    double mark = marked ? 16 : 0;
    return Math.clamp(Math.max(length, field.heading().length()) * 7.0 + 20 + mark, 70, 190);
  }
}
