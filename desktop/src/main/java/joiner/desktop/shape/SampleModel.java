package joiner.desktop.shape;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.audit.Violation;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/** The sample rows of a table as they are shown and typed, without a window. */
final class SampleModel {
  private final Workbench bench;
  private final Texts texts;
  private Optional<TableId> table = Optional.empty();
  private List<Field> fields = List.of();
  private Rows rows = Rows.NONE;
  private Map<FieldId, Set<Integer>> bad = Map.of();
  private RowOrder order = RowOrder.AS_ENTERED;
  private final Computed<Question, List<Integer>> ordering;
  private final ReadOnlyObjectWrapper<List<Integer>> places =
      new ReadOnlyObjectWrapper<>(List.of());

  /** What to order anew for. */
  private record Question(Rows rows, List<Field> fields, RowOrder order) {}

  /** How much of what was shown is another now. */
  enum News {
    COLUMNS,
    ROWS,
    CELLS
  }

  SampleModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.ordering =
        new Computed<>(
            bench.runner(),
            texts.get("rows.ordering"),
            Lane.WORKING,
            (left, right) -> left.rows == right.rows && left.order.equals(right.order),
            (asked, progress) ->
                asked.order.of(asked.rows, asked.fields, () -> !progress.stopped()));
    ordering.answerProperty().subscribe(this::ordered);
  }

  /** Places of the rows that are shown, from 0, in their order. */
  ReadOnlyObjectProperty<List<Integer>> placesProperty() {
    return places.getReadOnlyProperty();
  }

  /** Whether some rows are not shown, or not in the order in which they were entered. */
  boolean isOrdered() {
    return !order.equals(RowOrder.AS_ENTERED);
  }

  /** Shows the rows that hold all words of a text. */
  void filter(String text) {
    order(order.withFilter(text));
  }

  /** Shows the rows in the order of fields. */
  void sort(List<RowOrder.Sort> sorts) {
    order(order.withSorts(sorts));
  }

  private void order(RowOrder other) {
    if (!other.equals(order)) {
      order = other;
      order();
    }
  }

  /** Cells that are typed in move no row: one looks for it where it was. */
  private void order() {
    if (isOrdered()) {
      ordering.ask(new Question(rows, fields, order));
    } else {
      places.set(IntStream.range(0, rows.count()).boxed().toList());
    }
  }

  private void ordered(Answer<List<Integer>> answer) {
    if (isOrdered() && answer instanceof Answer.Current<List<Integer>>(var found)) {
      places.set(found.stream().filter(place -> place < rows.count()).toList());
    }
  }

  /** Turns to the rows of a table as they are now; says what is to be shown anew at least. */
  News turnTo(Table shown) {
    Rows next = bench.draft().rows().of(shown.id());
    bad = badCells(shown.id());
    boolean sameTable = table.equals(Optional.of(shown.id()));
    boolean sameColumns = sameTable && shown.fields().equals(fields);
    boolean sameRows = sameTable && next.count() == rows.count();
    if (!sameTable) {
      order = RowOrder.AS_ENTERED;
    }
    table = Optional.of(shown.id());
    fields = shown.fields();
    rows = next;
    if (!sameRows) {
      order();
    }
    if (!sameColumns) {
      return News.COLUMNS;
    }
    return sameRows ? News.CELLS : News.ROWS;
  }

  private Map<FieldId, Set<Integer>> badCells(TableId shown) {
    Map<FieldId, Set<Integer>> cells = new HashMap<>();
    bench
        .verdict()
        .audit()
        .violations()
        .filter(violation -> violation.table().equals(shown))
        .forEach(violation -> add(violation, cells));
    return cells;
  }

  private static void add(Violation violation, Map<FieldId, Set<Integer>> cells) {
    for (FieldId field : violation.fields()) {
      Set<Integer> numbers = cells.computeIfAbsent(field, id -> new HashSet<>());
      violation.rows().forEach(row -> numbers.add(row - 1));
    }
  }

  /** Whether it is turned to that table already. */
  boolean isOf(Table other) {
    return table.equals(Optional.of(other.id()));
  }

  List<Field> fields() {
    return fields;
  }

  int count() {
    return rows.count();
  }

  /** The text of a cell, rows from 0; empty for NULL. */
  String cell(int row, FieldId field) {
    return rows.cell(row, field).orElse("");
  }

  /** Whether a cell breaks the design. */
  boolean isBad(int row, FieldId field) {
    return bad.getOrDefault(field, Set.of()).contains(row);
  }

  /** How many cells break the design. */
  int badCells() {
    return bad.values().stream().mapToInt(Set::size).sum();
  }

  private Optional<Table> shown() {
    return table.flatMap(bench.design()::find);
  }

  /** Puts a text into a cell; the empty text is NULL. */
  void type(int row, Field field, String text) {
    Optional<String> typed = Optional.of(text).filter(t -> !t.isEmpty());
    shown().ifPresent(t -> bench.apply(ChangeRows.cell(t, rows, row, field, typed)));
  }

  /** Adds a row without values. */
  void add() {
    shown().ifPresent(t -> bench.apply(ChangeRows.added(t)));
  }

  /** Removes rows, given by their places from 0, as one change. */
  void remove(Set<Integer> gone) {
    Optional<Table> from = shown();
    if (!gone.isEmpty() && from.isPresent()) {
      bench.apply(ChangeRows.removed(from.get(), rows, gone));
      bench.tellDone(texts.get("rows.removed", gone.size()), texts.get("undo"));
    }
  }
}
