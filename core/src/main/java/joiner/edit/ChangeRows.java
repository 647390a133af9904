package joiner.edit;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import joiner.meaning.Draft;
import joiner.meaning.NewRow;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.LinkedRows;
import joiner.rows.RowId;
import joiner.rows.Rows;

/** Changes sample rows of one table. */
public record ChangeRows(String name, TableId table, To to) implements Edit {

  /** What the rows become. */
  public sealed interface To {
    /** The rows as they become. */
    Rows of(Rows rows);
  }

  private record WithCell(
      RowId row, FieldId field, Optional<String> text, Map<FieldId, String> stamps) implements To {
    @Override
    public Rows of(Rows rows) {
      OptionalInt place = rows.place(row);
      if (place.isEmpty()) {
        return rows;
      }
      Rows changed = rows;
      for (var stamp : stamps.entrySet()) {
        changed = changed.withCell(place.getAsInt(), stamp.getKey(), Optional.of(stamp.getValue()));
      }
      return changed.withCell(place.getAsInt(), field, text);
    }
  }

  private record WithRow(Function<Rows, Map<FieldId, String>> cells) implements To {
    @Override
    public Rows of(Rows rows) {
      return rows.withRow(cells.apply(rows));
    }
  }

  private record WithoutRows(Set<RowId> gone) implements To {
    @Override
    public Rows of(Rows rows) {
      return rows.without(gone);
    }
  }

  private record Numbered(FieldId counter) implements To {
    @Override
    public Rows of(Rows rows) {
      return Counters.number(rows, counter);
    }
  }

  /**
   * Changes one cell; nothing if the row is gone by then.
   *
   * @param rows the rows of the table as they are seen
   * @param row place of the row among them, from 0
   */
  public static ChangeRows cell(
      Table table, Rows rows, int row, Field field, Optional<String> text) {
    return new ChangeRows(
        "change " + field.label() + " in row " + (row + 1),
        table.id(),
        new WithCell(rows.id(row), field.id(), text, Map.of()));
  }

  /** The same with what the row notes of itself when it is changed. */
  public ChangeRows stamped(NewRow row) {
    return to instanceof WithCell cell
        ? new ChangeRows(name, table, new WithCell(cell.row, cell.field, cell.text, row.changed()))
        : this;
  }

  /** Adds a row without values at the end. */
  public static ChangeRows added(Table table) {
    return added(table, rows -> Map.of());
  }

  private static ChangeRows added(Table table, Function<Rows, Map<FieldId, String>> cells) {
    return new ChangeRows("add a row to " + table.label(), table.id(), new WithRow(cells));
  }

  /** Adds a row at the end that holds what it holds of itself. */
  public static ChangeRows added(Table table, NewRow made) {
    return added(table, made::made);
  }

  /**
   * Removes rows, and no others if some are gone by then.
   *
   * @param rows the rows of the table as they are seen
   * @param gone places of those to remove among them, from 0
   */
  public static ChangeRows removed(Table table, Rows rows, Set<Integer> gone) {
    return new ChangeRows(
        "remove " + Counts.of(gone.size(), "row", "rows") + " of " + table.label(),
        table.id(),
        new WithoutRows(gone.stream().map(rows::id).collect(Collectors.toUnmodifiableSet())));
  }

  /** Numbers the rows from 1 in a field. */
  static ChangeRows numbered(Table table, FieldId counter) {
    return new ChangeRows("number the rows", table.id(), new Numbered(counter));
  }

  @Override
  public Draft apply(Draft draft) {
    Optional<LinkedRows> link = draft.rows().link(table);
    if (link.isPresent() && to instanceof Numbered numbered) {
      LinkedRows counted = link.get().numberedIn(numbered.counter);
      return draft.withRows(draft.rows().withLink(table, counted));
    }
    InFile.requireHeld(draft, table);
    return draft.withRows(draft.rows().with(table, to::of));
  }
}
