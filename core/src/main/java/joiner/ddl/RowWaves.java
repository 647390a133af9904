package joiner.ddl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * Rows of a table that refers to itself, in waves: each row comes in a later one than the rows it
 * refers to (Kahn's algorithm level by level), linear in rows.
 */
final class RowWaves {
  private final Table table;
  private final Rows rows;

  /** For each row how many rows it waits for, and which rows wait for it. */
  private final int[] waiting;

  private final List<List<Integer>> children = new ArrayList<>();

  private RowWaves(Table table, Rows rows) {
    this.table = table;
    this.rows = rows;
    this.waiting = new int[rows.count()];
    for (int row = 0; row < rows.count(); row++) {
      children.add(new ArrayList<>());
    }
  }

  /**
   * The waves of a table's rows, each a list of row numbers from 0.
   *
   * @return empty where rows refer to themselves or to each other in a circle
   */
  static Optional<List<List<Integer>>> of(Draft draft, Table table) {
    var waves = new RowWaves(table, draft.rows().of(table.id()));
    draft.design().parentsOf(table.id()).stream()
        .filter(Relationship::isSelfReference)
        .forEach(waves::wait);
    return waves.inOrder();
  }

  private void wait(Relationship r) {
    Map<List<Value>, Integer> parents = new HashMap<>();
    for (int row = 0; row < rows.count(); row++) {
      parents.put(values(row, r.parentFields()), row);
    }
    for (int row = 0; row < rows.count(); row++) {
      Integer parent = parents.get(values(row, r.childFields()));
      if (parent != null) {
        waiting[row]++;
        children.get(parent).add(row);
      }
    }
  }

  private List<Value> values(int row, List<FieldId> fields) {
    var values = new ArrayList<Value>();
    for (FieldId id : fields) {
      Field field = table.field(id);
      values.add(ValueReader.valueOrNull(rows.cell(row, id), field.type()));
    }
    return values;
  }

  private Optional<List<List<Integer>>> inOrder() {
    List<Integer> wave = new ArrayList<>();
    for (int row = 0; row < waiting.length; row++) {
      if (waiting[row] == 0) {
        wave.add(row);
      }
    }
    var waves = new ArrayList<List<Integer>>();
    int placed = 0;
    while (!wave.isEmpty()) {
      waves.add(List.copyOf(wave));
      placed += wave.size();
      var next = new ArrayList<Integer>();
      for (int row : wave) {
        for (int child : children.get(row)) {
          if (--waiting[child] == 0) {
            next.add(child);
          }
        }
      }
      wave = next;
    }
    return placed == waiting.length ? Optional.of(waves) : Optional.empty();
  }
}
