package joiner.rows;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.UnaryOperator;
import joiner.model.TableId;

/** The rows of all tables of a design; tables that are not named have none. Immutable. */
public record SampleRows(Map<TableId, Rows> byTable) {
  /** No rows at all. */
  public static final SampleRows NONE = new SampleRows(Map.of());

  public SampleRows {
    Map<TableId, Rows> some = new LinkedHashMap<>(byTable);
    some.values().removeIf(rows -> rows.count() == 0); // None is none, named or not.
    byTable = Map.copyOf(some);
  }

  /** The rows of one table. */
  public Rows of(TableId table) {
    return byTable.getOrDefault(table, Rows.NONE);
  }

  /** The same rows with one table's changed. */
  public SampleRows with(TableId table, UnaryOperator<Rows> change) {
    Map<TableId, Rows> changed = new LinkedHashMap<>(byTable);
    changed.put(table, change.apply(of(table)));
    return new SampleRows(changed);
  }

  /** The same rows without one table's. */
  public SampleRows without(TableId table) {
    Map<TableId, Rows> kept = new LinkedHashMap<>(byTable);
    kept.remove(table);
    return new SampleRows(kept);
  }

  /** Number of rows in all tables. */
  public int count() {
    return byTable.values().stream().mapToInt(Rows::count).sum();
  }
}
