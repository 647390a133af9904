package joiner.edit;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.Rows;

/** Changes sample rows of one table. */
public record ChangeRows(String name, TableId table, To to) implements Edit {

  /** What the rows become. */
  public sealed interface To {
    /** The rows as they become. */
    Rows of(Rows rows);
  }

  private record WithCell(int row, FieldId field, Optional<String> text) implements To {
    @Override
    public Rows of(Rows rows) {
      return rows.withCell(row, field, text);
    }
  }

  private record WithEmptyRow() implements To {
    @Override
    public Rows of(Rows rows) {
      return rows.withRow(Map.of());
    }
  }

  private record WithoutRows(Set<Integer> rows) implements To {
    @Override
    public Rows of(Rows before) {
      return before.without(rows);
    }
  }

  private record Numbered(FieldId counter) implements To {
    @Override
    public Rows of(Rows rows) {
      return Counters.number(rows, counter);
    }
  }

  /** Changes one cell. */
  public static ChangeRows cell(Table table, int row, Field field, Optional<String> text) {
    return new ChangeRows(
        "change " + field.label() + " in row " + (row + 1),
        table.id(),
        new WithCell(row, field.id(), text));
  }

  /** Adds a row without values at the end. */
  public static ChangeRows added(Table table) {
    return new ChangeRows("add a row to " + table.label(), table.id(), new WithEmptyRow());
  }

  /** Removes rows, given by their places from 0. */
  public static ChangeRows removed(Table table, Set<Integer> rows) {
    return new ChangeRows(
        "remove " + Counts.of(rows.size(), "row", "rows") + " of " + table.label(),
        table.id(),
        new WithoutRows(Set.copyOf(rows)));
  }

  /** Numbers the rows from 1 in a field. */
  static ChangeRows numbered(Table table, FieldId counter) {
    return new ChangeRows("number the rows", table.id(), new Numbered(counter));
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withRows(draft.rows().with(table, to::of));
  }
}
