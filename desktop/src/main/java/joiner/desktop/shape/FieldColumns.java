package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Node;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import joiner.desktop.widget.CellEditor;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.TextCell;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Glossary;
import joiner.edit.TypeChoice;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldGroup;

/** The columns of the grid of fields: what each shows, and what is done in it. */
final class FieldColumns {
  private final FieldsModel model;
  private final SampleModel rows;
  private final Texts texts;
  private final CellEditor<FieldLine> editor;
  private final Deeds deeds;
  private final List<TableColumn<FieldLine, ?>> all = new ArrayList<>();
  private final HeldWords words;

  /** What the grid does for its columns. */
  interface Deeds {
    /** Adds a field of that label. */
    void add(String label);

    /** The field itself, and those chosen with it. */
    List<Field> targets(Field field);

    /** The field above, if there is one. */
    Optional<Field> above(Field field);

    /** Goes to the cells of a field. */
    void seeCells(Field field);

    /** Shows the fields of a group no longer, or again. */
    void fold(FieldGroup group);

    /** Shows again what is there, for what was typed did not become so. */
    void refresh();
  }

  FieldColumns(
      FieldsModel model, SampleModel rows, Texts texts, CellEditor<FieldLine> editor, Deeds deeds) {
    this.model = model;
    this.rows = rows;
    this.texts = texts;
    this.editor = editor;
    this.deeds = deeds;
    this.words = new HeldWords(texts);
    build();
  }

  /** All of them, in their order. */
  List<TableColumn<FieldLine, ?>> all() {
    return all;
  }

  /** The one a new field begins in. */
  TableColumn<FieldLine, ?> label() {
    return all.get(1);
  }

  /** The one of names, which follow labels: it is shown where there is room to spare. */
  TableColumn<FieldLine, ?> name() {
    return all.get(2);
  }

  private void build() {
    var key = plain("key", 40);
    key.setCellValueFactory(line -> new ReadOnlyStringWrapper(tag(line.getValue())));
    key.setCellFactory(column -> folding());
    editor.toggle(
        key,
        line -> line.heading().isPresent(),
        line -> "",
        line -> line.heading().ifPresent(deeds::fold));
    all.add(key);
    all.add(label(128));
    all.add(typed("name", 110, Field::name, model::rename));
    all.add(type());
    all.add(size());
    all.add(dot("required", model::isRequired, model::require));
    all.add(dot("unique", model::isUnique, model::setUnique));
    all.add(defaults());
    all.add(inTheRows());
    editor.homeIs(label());
    editor.passOver(name());
    explain("key", "Primary key");
    explain("name", "Label and name");
    explain("required", "Required");
    explain("unique", "Unique");
    explain("default", "Default");
  }

  /** The head of a column tells what its word means. */
  private void explain(String column, String word) {
    String text = texts.get("column." + column);
    all.stream()
        .filter(c -> c.getText().equals(text))
        .forEach(
            c -> {
              c.setGraphic(Terms.explain(Parts.label(text), word, Glossary.meaning(word)));
              c.setText("");
            });
  }

  private TableColumn<FieldLine, String> plain(String key, double width) {
    var column = new TableColumn<FieldLine, String>(texts.get("column." + key));
    column.setId("column-" + key);
    column.setPrefWidth(width);
    column.setSortable(false);
    column.setReorderable(false);
    column.setEditable(false);
    return column;
  }

  private static ReadOnlyStringWrapper shown(FieldLine line, Function<Field, String> value) {
    return new ReadOnlyStringWrapper(of(line, value));
  }

  private static String of(FieldLine line, Function<Field, String> value) {
    return line.field().map(value).orElse("");
  }

  private TableColumn<FieldLine, String> typed(
      String key, double width, Function<Field, String> value, BiConsumer<Field, String> change) {
    TableColumn<FieldLine, String> column = plain(key, width);
    column.setCellValueFactory(line -> shown(line.getValue(), value));
    column.setCellFactory(c -> new TextCell<>(line -> false));
    editor.type(
        column,
        line -> line.field().isPresent(),
        line -> of(line, value),
        (line, text) -> line.field().ifPresent(field -> change.accept(field, text)));
    return column;
  }

  /** The labels of fields and of groups; here a new field begins. */
  private TableColumn<FieldLine, String> label(double width) {
    TableColumn<FieldLine, String> column = plain("label", width);
    column.setCellValueFactory(
        line ->
            new ReadOnlyStringWrapper(
                line.getValue().isNew() ? texts.get("prompt") : label(line.getValue())));
    column.setCellFactory(
        c -> {
          var cell = new TextCell<FieldLine>(FieldLine::isNew);
          cell.itemProperty().subscribe(value -> place(cell));
          cell.indexProperty().subscribe(value -> place(cell));
          return cell;
        });
    editor.type(column, line -> true, FieldColumns::label, this::commit);
    return column;
  }

  /** The fields of a group stand behind its heading. */
  private static void place(TextCell<FieldLine> cell) {
    FieldLine line = cell.getTableRow() == null ? null : cell.getTableRow().getItem();
    cell.getStyleClass().removeAll("group-heading", "in-group");
    if (line != null && line.group().isPresent()) {
      cell.getStyleClass().add(line.heading().isPresent() ? "group-heading" : "in-group");
    }
  }

  private static String label(FieldLine line) {
    return line.field().map(Field::label).or(() -> line.group().map(FieldGroup::label)).orElse("");
  }

  private void commit(FieldLine line, String typed) {
    if (line.field().isPresent()) {
      model.relabel(line.field().get(), typed);
    } else if (line.group().isPresent()) {
      model.groups().rename(model.table(), line.group().get(), typed);
    } else if (!typed.isBlank()) {
      deeds.add(typed.strip());
    }
  }

  /** Of a heading whether its fields are shown. */
  private String tag(FieldLine line) {
    return line.heading()
        .map(group -> model.groups().isFolded(model.table(), group) ? "▸" : "▾")
        .orElseGet(() -> of(line, model::tag));
  }

  private TableCell<FieldLine, String> folding() {
    TableCell<FieldLine, String> cell = styled("key-tag");
    cell.setOnMouseClicked(
        event ->
            Optional.ofNullable(cell.getTableRow().getItem())
                .flatMap(FieldLine::heading)
                .ifPresent(deeds::fold));
    return cell;
  }

  /** Of choices it is told how many there are; they are typed one after the other. */
  private TableColumn<FieldLine, String> size() {
    TableColumn<FieldLine, String> column = typed("size", 58, TypeChoice::sizeOf, this::resize);
    column.setCellValueFactory(
        line ->
            new ReadOnlyStringWrapper(
                line.getValue()
                    .heading()
                    .map(group -> texts.get("group.size", group.fields().size()))
                    .orElseGet(() -> of(line.getValue(), model::size))));
    return column;
  }

  private void resize(Field field, String size) {
    if (!model.resize(deeds.targets(field), size)) {
      deeds.refresh();
    }
  }

  private TableColumn<FieldLine, String> type() {
    TableColumn<FieldLine, String> column = plain("type", 108);
    column.setCellValueFactory(
        line ->
            new ReadOnlyStringWrapper(
                line.getValue()
                    .heading()
                    .map(model.groups()::kind)
                    .orElseGet(() -> of(line.getValue(), model::type))));
    column.setCellFactory(c -> new PickCell(this::pickType));
    editor.act(
        column,
        line -> line.field().isPresent(),
        line -> of(line, model::type),
        (line, text) ->
            line.field()
                .ifPresent(field -> deeds.above(field).ifPresent(up -> model.retypeAs(field, up))),
        (cell, line, letter) -> line.field().ifPresent(field -> pickType(cell, field, letter)));
    return column;
  }

  private void pickType(Node cell, Field field, String begun) {
    new Picker<>(texts.get("type.pick"), model.typeOffers())
        .at(TypeOffers.now(model.refersTo(field), TypeChoice.of(field)))
        .begunWith(begun)
        .goingOn(editor::goOn)
        .open(cell, held -> model.retype(deeds.targets(field), held));
  }

  private TableColumn<FieldLine, String> defaults() {
    TableColumn<FieldLine, String> column = plain("default", 92);
    column.setCellValueFactory(line -> shown(line.getValue(), model.origins()::words));
    column.setCellFactory(c -> new PickCell(this::pickDefault));
    editor.act(
        column,
        line -> line.field().isPresent(),
        line -> of(line, model.origins()::typed),
        (line, text) ->
            line.field().ifPresent(field -> model.origins().give(deeds.targets(field), text)),
        (cell, line, letter) -> line.field().ifPresent(field -> pickDefault(cell, field, letter)));
    return column;
  }

  private void pickDefault(Node cell, Field field, String begun) {
    new Picker<>(texts.get("default.pick"), model.origins().offers(field))
        .at(OriginsModel.given(field))
        .begunWith(begun)
        .goingOn(editor::goOn)
        .open(cell, given -> model.give(deeds.targets(field), given));
  }

  private TableColumn<FieldLine, String> dot(
      String key, Function<Field, Boolean> on, BiConsumer<List<Field>, Boolean> set) {
    TableColumn<FieldLine, String> column = plain(key, 66);
    Function<Field, String> mark = field -> on.apply(field) ? "●" : "";
    column.setCellValueFactory(line -> shown(line.getValue(), mark));
    editor.toggle(
        column,
        line -> line.field().isPresent(),
        line -> of(line, mark),
        line ->
            line.field().ifPresent(field -> set.accept(deeds.targets(field), !on.apply(field))));
    column.setCellFactory(
        c -> {
          var cell = styled("dot");
          cell.setOnMouseClicked(
              event ->
                  Optional.ofNullable(cell.getTableRow().getItem())
                      .flatMap(FieldLine::field)
                      .ifPresent(field -> set.accept(deeds.targets(field), !on.apply(field))));
          return cell;
        });
    return column;
  }

  private TableColumn<FieldLine, RowsCell.Bar> inTheRows() {
    var column = new TableColumn<FieldLine, RowsCell.Bar>(texts.get("column.rows"));
    column.setId("column-rows");
    column.setPrefWidth(180);
    column.setMinWidth(150);
    column.setSortable(false);
    column.setReorderable(false);
    column.setEditable(false);
    column.setCellValueFactory(
        line ->
            new SimpleObjectProperty<>(line.getValue().field().flatMap(this::bar).orElse(null)));
    column.setCellFactory(
        c -> {
          var cell = new RowsCell<FieldLine>();
          cell.setOnMouseClicked(
              event ->
                  Optional.ofNullable(cell.getTableRow().getItem())
                      .flatMap(FieldLine::field)
                      .ifPresent(deeds::seeCells));
          return cell;
        });
    return column;
  }

  private Optional<RowsCell.Bar> bar(Field field) {
    return rows.held(field.id())
        .flatMap(
            held -> {
              long bad = rows.badRows(field.id());
              String said =
                  words.of(
                      field, held, rows.parents(field.id()).filter(ParentRows::isOfOneField), bad);
              return RowsCell.Bar.of(held.rows(), held.rows() - held.blank(), bad, said);
            });
  }

  private static TableCell<FieldLine, String> styled(String style) {
    var cell =
        new TableCell<FieldLine, String>() {
          @Override
          protected void updateItem(String text, boolean empty) {
            super.updateItem(text, empty);
            setText(empty ? null : text);
          }
        };
    cell.getStyleClass().add(style);
    return cell;
  }

  /** A cell whose value is picked from a list beside it. */
  private static final class PickCell extends TableCell<FieldLine, String> {
    /** Opens the list. */
    interface Opening {
      void at(Node cell, Field field, String begun);
    }

    PickCell(Opening opening) {
      setOnMouseClicked(
          event -> {
            if (event.getClickCount() == 2) {
              Optional.ofNullable(getTableRow().getItem())
                  .flatMap(FieldLine::field)
                  .ifPresent(field -> opening.at(this, field, ""));
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
