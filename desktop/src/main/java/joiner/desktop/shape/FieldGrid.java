package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.scene.Node;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import joiner.compare.Effect;
import joiner.compare.Impact;
import joiner.desktop.widget.CellEditor;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.TextCell;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.AddField;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.Edit;
import joiner.edit.RemoveField;
import joiner.edit.SetUnique;
import joiner.expression.Formula;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.NamingPolicy;

/** The fields of a table as a grid to type in; the last line waits for a new field. */
final class FieldGrid {
  /** A line: a field, or the empty one at the end. */
  private record Line(Optional<Field> field) {}

  /** Below this the columns cannot be read side by side. */
  private static final double NARROW = 690;

  private final Workbench bench;
  private final Texts texts;
  private final TableView<Line> grid = new TableView<>();
  private final CellEditor<Line> editor = new CellEditor<>(grid);
  private final HBox tools;
  private Table table = Table.of("none", "none", new joiner.model.Noun("none", "none"));
  private List<Relationship> links = List.of();
  private boolean filling;
  private boolean scrolls;
  // After a field was typed the last line waits, while the sheet shows the field just made: so
  // long as this is what is chosen.
  private Optional<Selection> typedLast = Optional.empty();

  FieldGrid(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    grid.setEditable(true); // For the types; what is typed, the editor takes.
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
            Parts.button(texts.get("field.remove"), this::remove));
  }

  Node node() {
    return editor;
  }

  Node tools() {
    return tools;
  }

  void show(Table shown) {
    if (shown.equals(table) && bench.design().parentsOf(shown.id()).equals(links)) {
      select();
      return;
    }
    table = shown;
    links = bench.design().parentsOf(shown.id());
    grid.setAccessibleText(texts.get("grid", shown.label()));
    filling = true;
    var lines = new ArrayList<Line>();
    shown.fields().forEach(field -> lines.add(new Line(Optional.of(field))));
    lines.add(new Line(Optional.empty()));
    grid.getItems().setAll(lines);
    filling = false;
    size();
    select();
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

  private void select() {
    filling = true;
    grid.getSelectionModel().clearSelection();
    Optional<FieldId> wanted = bench.selectionProperty().get().field();
    for (int i = 0; i < table.fields().size(); i++) {
      if (wanted.equals(Optional.of(table.fields().get(i).id()))) {
        grid.getSelectionModel().select(i);
      }
    }
    if (typedLast.equals(Optional.of(bench.selectionProperty().get()))) {
      int next = grid.getItems().size() - 1;
      grid.getSelectionModel().clearAndSelect(next);
      grid.scrollTo(next);
    }
    filling = false;
  }

  /** Puts the cursor on the line that waits for a new field. */
  void typeOn() {
    typedLast = Optional.of(bench.selectionProperty().get());
    select();
    grid.requestFocus();
  }

  private void picked(Line line) {
    if (!filling && line != null && line.field().isPresent()) {
      typedLast = Optional.empty();
      bench.selectionProperty().set(Selection.of(table.id(), line.field().get().id()));
    }
  }

  private void build() {
    var key = text("key", 40, this::tag, Optional.empty());
    key.setCellFactory(column -> styled("key-tag"));
    grid.getColumns().add(key);
    grid.getColumns().add(text("label", 116, Field::label, Optional.of(this::relabel)));
    grid.getColumns().add(text("name", 104, Field::name, Optional.of(this::rename)));
    grid.getColumns().add(type());
    grid.getColumns()
        .add(text("size", 62, field -> TypeChoice.sizeOf(field.type()), Optional.of(this::resize)));
    grid.getColumns()
        .add(dot("required", field -> table.isRequired(field.id()), this::toggleRequired));
    grid.getColumns()
        .add(dot("unique", field -> table.isKey(List.of(field.id())), this::toggleUnique));
    grid.getColumns()
        .add(
            text(
                "default",
                92,
                field -> field.defaultValue().map(Formula::text).orElse(""),
                Optional.of(this::changeDefault)));
    grid.getColumns().add(text("note", 96, Field::description, Optional.of(this::note)));
    explain("key", "Primary key");
    explain("name", "Label and name");
    explain("required", "Required");
    explain("unique", "Unique");
    explain("default", "Default");
    grid.widthProperty().subscribe(width -> fit(width.doubleValue()));
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
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), table.fieldsByName().keySet());
    Field field = table.unused(Field.of(name, label, TypeChoice.suggestedFor(label)));
    bench.apply(new AddField(table.id(), field));
    bench.selectionProperty().set(Selection.of(table.id(), field.id()));
    show(bench.design().table(table.id()));
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

  private String tag(Field field) {
    if (table.primaryKey().contains(field.id())) {
      return "PK";
    }
    return links.stream().anyMatch(r -> r.childFields().contains(field.id())) ? "FK" : "";
  }

  private TableColumn<Line, String> type() {
    var column = new TableColumn<Line, String>(texts.get("column.type"));
    column.setPrefWidth(132);
    column.setSortable(false);
    column.setReorderable(false);
    column.setCellValueFactory(
        line -> new ReadOnlyStringWrapper(line.getValue().field().map(this::typeWords).orElse("")));
    column.setCellFactory(c -> new TypeCell());
    return column;
  }

  private String typeWords(Field field) {
    return links.stream()
        .filter(r -> r.childFields().contains(field.id()))
        .findFirst()
        .map(r -> "→ " + bench.design().table(r.parent()).label())
        .orElseGet(
            () -> texts.get("type." + TypeChoice.of(field.type()).map(Enum::name).orElse("Kept")));
  }

  private TableColumn<Line, String> dot(
      String key, Function<Field, Boolean> on, java.util.function.Consumer<Field> toggle) {
    var column = new TableColumn<Line, String>(texts.get("column." + key));
    column.setPrefWidth(70);
    column.setEditable(false);
    column.setSortable(false);
    column.setReorderable(false);
    column.setCellValueFactory(
        line ->
            new ReadOnlyStringWrapper(
                line.getValue().field().map(field -> on.apply(field) ? "●" : "").orElse("")));
    column.setCellFactory(
        c -> {
          var cell = styled("dot");
          cell.setOnMouseClicked(
              event ->
                  Optional.ofNullable(cell.getTableRow().getItem())
                      .flatMap(Line::field)
                      .ifPresent(toggle));
          return cell;
        });
    return column;
  }

  private void relabel(Field field, String label) {
    if (label.isBlank() || label.equals(field.label())) {
      return;
    }
    boolean derived = field.name().equals(NamingPolicy.nameFor(field.label()));
    String name = derived ? freeName(field, NamingPolicy.nameFor(label)) : field.name();
    bench.apply(ChangeField.rename(table, field, label.strip(), name));
  }

  private String freeName(Field field, String name) {
    var taken = new ArrayList<>(table.fieldsByName().keySet());
    taken.remove(field.name());
    return NamingPolicy.free(name, taken);
  }

  private void rename(Field field, String name) {
    if (!name.isBlank() && !name.equals(field.name())) {
      bench.apply(ChangeField.rename(table, field, field.label(), name.strip()));
    }
  }

  private void resize(Field field, String size) {
    if (size.equals(TypeChoice.sizeOf(field.type()))) {
      return;
    }
    TypeChoice.of(field.type())
        .flatMap(choice -> choice.sized(size))
        .ifPresentOrElse(
            type -> bench.apply(ChangeField.type(table, field, type)),
            () -> {
              bench.tell(Notice.Sort.REFUSED, texts.get("size.bad", size, typeWords(field)));
              grid.refresh();
            });
  }

  private void changeDefault(Field field, String text) {
    bench.apply(ChangeField.defaultValue(table, field, Formula.unlessBlank(text)));
  }

  private void note(Field field, String text) {
    bench.apply(ChangeField.description(table, field, text.strip()));
  }

  private void toggleRequired(Field field) {
    if (!table.primaryKey().contains(field.id())) {
      bench.apply(ChangeField.required(table, field, !field.required()));
    }
  }

  private void toggleUnique(Field field) {
    var alone = List.of(field.id());
    if (!table.primaryKey().equals(alone)) {
      bench.apply(SetUnique.of(table, alone, !table.isKey(alone)));
    }
  }

  private List<Field> chosen() {
    return grid.getSelectionModel().getSelectedItems().stream()
        .map(Line::field)
        .flatMap(Optional::stream)
        .toList();
  }

  private void toggleKey() {
    var ids = chosen().stream().map(Field::id).toList();
    var key = new ArrayList<>(table.primaryKey());
    if (key.containsAll(ids)) {
      key.removeAll(ids);
    } else {
      ids.stream().filter(id -> !key.contains(id)).forEach(key::add);
    }
    if (!ids.isEmpty()) {
      bench.apply(ChangeTable.primaryKey(table, key));
    }
  }

  private void move(int by) {
    Optional<Field> field = chosen().stream().findFirst();
    int from = field.map(table.fields()::indexOf).orElse(-1);
    if (field.isPresent() && from + by >= 0 && from + by < table.fields().size()) {
      bench.apply(ChangeTable.move(table, field.get(), from + by));
    }
  }

  private void remove() {
    remove(chosen());
  }

  /** What goes with the fields that one does not see here. */
  private static String takenAlong(Impact impact) {
    return impact.effects().stream()
        .filter(
            effect ->
                effect.kind() == Effect.Kind.RELATIONSHIP_REMOVED
                    || effect.kind() == Effect.Kind.FORMULA_BROKEN)
        .map(effect -> "\n" + effect.message())
        .collect(Collectors.joining());
  }

  /** Removes fields as one change, which one undo takes back. */
  private void remove(List<Field> gone) {
    if (gone.isEmpty()) {
      return;
    }
    List<Edit> edits = new ArrayList<>();
    gone.forEach(field -> edits.add(new RemoveField(table.id(), field.id(), field.label())));
    Edit removal = Edit.all(texts.get("undo.remove", gone.size()), edits);
    String along = takenAlong(Impact.of(removal, bench.draft()));
    bench.apply(removal);
    bench.tellDone(texts.get("removed", gone.size()) + along, texts.get("undo"));
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
              () -> remove(List.of(field))));
    }
    return commands;
  }

  /** A type, picked from a list beside it. */
  private final class TypeCell extends TableCell<Line, String> {
    TypeCell() {
      setOnMouseClicked(
          event -> {
            if (event.getClickCount() == 2) {
              startEdit();
            }
          });
    }

    @Override
    public void startEdit() {
      Optional<Field> field = Optional.ofNullable(getTableRow().getItem()).flatMap(Line::field);
      field.ifPresent(
          f ->
              Picker.open(
                  this,
                  texts.get("type.pick"),
                  List.of(TypeChoice.values()),
                  TypeChoice.of(f.type()),
                  choice -> texts.get("type." + choice.name()),
                  choice -> choose(f, choice)));
    }

    private void choose(Field field, TypeChoice choice) {
      if (!Optional.of(choice).equals(TypeChoice.of(field.type()))) {
        bench.apply(ChangeField.type(table, field, choice.usual()));
      }
    }

    @Override
    protected void updateItem(String text, boolean empty) {
      super.updateItem(text, empty);
      setText(empty ? null : text);
    }
  }
}
