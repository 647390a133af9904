package joiner.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
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
    Map<Boolean, List<One>> own =
        rows.stream()
            .filter(one -> one.table.equals(table))
            .collect(Collectors.partitioningBy(one -> one.row.isEmpty()));
    return before ->
        added(
            changed(before, own.get(false)).without(gone.getOrDefault(table, Set.of())),
            own.get(true));
  }

  private static Rows changed(Rows before, List<One> changes) {
    Set<RowId> ids = changes.stream().map(one -> one.row.orElseThrow()).collect(Collectors.toSet());
    Map<RowId, Integer> places = before.places(ids);
    Map<FieldId, Map<Integer, Optional<String>>> columns = new LinkedHashMap<>();
    for (One one : changes) {
      Integer place = places.get(one.row.orElseThrow());
      if (place != null) {
        one.cells.forEach(
            (field, text) -> columns.computeIfAbsent(field, f -> new HashMap<>()).put(place, text));
      }
    }
    Rows changed = before;
    for (var column : columns.entrySet()) {
      changed = changed.withCells(column.getKey(), column.getValue());
    }
    return changed;
  }

  private static Rows added(Rows rows, List<One> added) {
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
