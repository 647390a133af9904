package joiner.desktop.shape;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.collections.ObservableList;
import javafx.scene.Node;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import joiner.audit.Violation;
import joiner.desktop.widget.CellEditor;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.TextCell;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.Rows;

/** The sample rows of a table; cells that break the design are marked. */
public final class SampleGrid {
  private final Workbench bench;
  private final Texts texts = Texts.beside(SampleGrid.class);
  private final TableView<Integer> grid = new TableView<>();
  private final CellEditor<Integer> editor = new CellEditor<>(grid);
  private List<Field> shownFields = List.of();
  private Optional<TableId> shownTable = Optional.empty();
  private Map<FieldId, Set<Integer>> bad = Map.of();
  private Rows rows = Rows.NONE;

  /** A grid of no table yet. */
  public SampleGrid(Workbench bench) {
    this.bench = bench;
    grid.setId("sample-grid");
    grid.setMinHeight(120);
    grid.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
    grid.setAccessibleText(texts.get("rows.title"));
  }

  /** The grid. */
  public Node node() {
    return editor;
  }

  /** How many cells break the design. */
  int badCells() {
    return bad.values().stream().mapToInt(Set::size).sum();
  }

  /** Places of the rows chosen, from 0. */
  ObservableList<Integer> chosen() {
    return grid.getSelectionModel().getSelectedIndices();
  }

  /** Removes the rows chosen, as one change. */
  void removeChosen() {
    Set<Integer> gone = Set.copyOf(chosen());
    Optional<Table> table = shownTable.flatMap(bench.design()::find);
    if (!gone.isEmpty() && table.isPresent()) {
      bench.apply(ChangeRows.removed(table.get(), rows, gone));
      bench.tellDone(texts.get("rows.removed", gone.size()), texts.get("undo"));
    }
  }

  /** Shows the rows of a table. */
  public void show(Table table) {
    Rows next = bench.draft().rows().of(table.id());
    bad = badCells(table);
    boolean sameTable = shownTable.equals(Optional.of(table.id()));
    if (!sameTable || !table.fields().equals(shownFields)) {
      columns(table);
    }
    boolean sameRows =
        sameTable && next.count() == rows.count() && grid.getItems().size() == next.count();
    rows = next;
    if (!sameRows) {
      grid.getItems().setAll(IntStream.range(0, rows.count()).boxed().toList());
    }
    shownTable = Optional.of(table.id());
    grid.setPlaceholder(
        Parts.prose(texts.get(table.fields().isEmpty() ? "rows.fields" : "rows.type"), "muted"));
    grid.refresh();
  }

  /** Brings a row into sight, with the first of those fields, and selects it. */
  public void reveal(int row, List<FieldId> fields) {
    grid.getSelectionModel().select(row);
    grid.scrollTo(Math.max(0, row - 3));
    for (int i = 0; i < shownFields.size(); i++) {
      if (fields.contains(shownFields.get(i).id())) {
        grid.scrollToColumnIndex(i + 1);
        return;
      }
    }
  }

  private Map<FieldId, Set<Integer>> badCells(Table table) {
    Map<FieldId, Set<Integer>> cells = new HashMap<>();
    bench
        .verdict()
        .audit()
        .violations()
        .filter(violation -> violation.table().equals(table.id()))
        .forEach(violation -> add(violation, cells));
    return cells;
  }

  private static void add(Violation violation, Map<FieldId, Set<Integer>> cells) {
    for (FieldId field : violation.fields()) {
      Set<Integer> numbers = cells.computeIfAbsent(field, id -> new HashSet<>());
      violation.rows().forEach(row -> numbers.add(row - 1));
    }
  }

  private void columns(Table table) {
    shownFields = table.fields();
    editor.forgetColumns();
    grid.getColumns().clear();
    var number = new TableColumn<Integer, String>(texts.get("row.number"));
    number.setPrefWidth(52);
    number.setCellValueFactory(row -> new ReadOnlyStringWrapper(Counts.of(row.getValue() + 1)));
    number.setSortable(false);
    grid.getColumns().add(number);
    for (Field field : table.fields()) {
      grid.getColumns().add(column(table.id(), field));
    }
  }

  private TableColumn<Integer, String> column(TableId table, Field field) {
    var column = new TableColumn<Integer, String>(field.label());
    column.setSortable(false);
    column.setReorderable(false);
    column.setPrefWidth(width(field));
    column.setCellValueFactory(
        row -> new ReadOnlyStringWrapper(rows.cell(row.getValue(), field.id()).orElse("")));
    column.setCellFactory(
        c -> {
          var cell = new TextCell<Integer>(row -> false);
          Runnable mark = () -> mark(cell, field);
          cell.indexProperty().subscribe(value -> mark.run());
          cell.itemProperty().subscribe(value -> mark.run());
          return cell;
        });
    editor.type(
        column,
        row -> true,
        row -> rows.cell(row, field.id()).orElse(""),
        (row, text) -> {
          Optional<String> typed = Optional.of(text).filter(t -> !t.isEmpty());
          bench.apply(ChangeRows.cell(bench.design().table(table), rows, row, field, typed));
        });
    return column;
  }

  private void mark(TextCell<Integer> cell, Field field) {
    cell.getStyleClass().remove("bad");
    if (bad.getOrDefault(field.id(), Set.of()).contains(cell.getIndex())) {
      cell.getStyleClass().add("bad");
    }
  }

  private static double width(Field field) {
    int length =
        field
            .type()
            .length()
            .orElse(field.type() instanceof joiner.model.FieldType.DateTime ? 20 : 11);
    return Math.clamp(Math.max(length, field.label().length()) * 7.0 + 20, 70, 190);
  }
}
