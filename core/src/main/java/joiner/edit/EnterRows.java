package joiner.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.TableId;
import joiner.rows.RowId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.rows.Stretch;

/**
 * Enters rows of one or several tables as one change: new ones at the end of their tables, others
 * changed where they are, others again taken away.
 *
 * @param what which rows, as people call them
 * @param rows in the order in which they are entered
 * @param gone those that go
 */
public record EnterRows(String what, List<One> rows, Map<TableId, Set<RowId>> gone)
    implements Edit {
  public EnterRows {
    rows = List.copyOf(rows);
    gone = Map.copyOf(gone);
  }

  /**
   * One row.
   *
   * @param row which one is changed; empty: a new one
   * @param cells what its cells become; of a new row all that have a text, of another those that
   *     change
   */
  public record One(TableId table, Optional<RowId> row, Map<FieldId, Optional<String>> cells) {
    public One {
      cells = Map.copyOf(cells);
    }
  }

  @Override
  public String name() {
    return "enter " + what;
  }

  @Override
  public Draft apply(Draft draft) {
    Set<TableId> touched = new HashSet<>(gone.keySet());
    rows.forEach(row -> touched.add(row.table));
    touched.forEach(table -> InFile.requireHeld(draft, table));
    SampleRows changed = draft.rows();
    for (TableId table : touched) {
      changed = changed.with(table, this.ofTable(table));
    }
    return draft.withRows(changed);
  }

  private UnaryOperator<Rows> ofTable(TableId table) {
    return before -> {
      Rows changed = before;
      var columns = new LinkedHashMap<FieldId, Map<Integer, Optional<String>>>();
      var added = new ArrayList<One>();
      for (One one : rows) {
        if (one.table.equals(table)) {
          if (one.row.isEmpty()) {
            added.add(one);
          } else {
            OptionalInt place = before.place(one.row.get());
            place.ifPresent(
                at ->
                    one.cells.forEach(
                        (field, text) ->
                            columns
                                .computeIfAbsent(field, f -> new LinkedHashMap<>())
                                .put(at, text)));
          }
        }
      }
      for (var column : columns.entrySet()) {
        changed = with(changed, column.getKey(), column.getValue());
      }
      return with(without(changed, gone.getOrDefault(table, Set.of())), added);
    };
  }

  /** Many cells of a column at once. */
  private static Rows with(Rows rows, FieldId field, Map<Integer, Optional<String>> cells) {
    if (cells.size() == 1) {
      var one = cells.entrySet().iterator().next();
      return rows.withCell(one.getKey(), field, one.getValue());
    }
    var column = new ArrayList<Optional<String>>(rows.count());
    for (int row = 0; row < rows.count(); row++) {
      column.add(cells.getOrDefault(row, rows.cell(row, field)));
    }
    return rows.withColumn(field, column);
  }

  private static Rows without(Rows rows, Set<RowId> gone) {
    return gone.isEmpty()
        ? rows
        : rows.without(
            Stretch.of(
                IntStream.range(0, rows.count()).filter(row -> gone.contains(rows.id(row)))));
  }

  private static Rows with(Rows rows, List<One> added) {
    if (added.isEmpty()) {
      return rows;
    }
    var fields = new ArrayList<>(rows.fields());
    for (One one : added) {
      one.cells.keySet().stream().filter(field -> !fields.contains(field)).forEach(fields::add);
    }
    List<List<Optional<String>>> texts =
        added.stream()
            .map(
                one ->
                    fields.stream()
                        .map(field -> one.cells.getOrDefault(field, Optional.empty()))
                        .toList())
            .toList();
    return rows.with(List.of(new Stretch(rows.count(), added.size())), Rows.of(fields, texts));
  }
}
