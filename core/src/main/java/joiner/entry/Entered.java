package joiner.entry;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import joiner.rows.RowId;

/**
 * A row as somebody enters it, with rows that refer to it.
 *
 * @param row the one that is changed; empty: a new one
 * @param cells what was typed, by field; an empty text takes the value away
 * @param details rows entered below it, by the relationship over which they refer to it
 */
public record Entered(
    TableId table,
    Optional<RowId> row,
    Map<FieldId, String> cells,
    Map<RelationshipId, List<Entered>> details) {
  public Entered {
    cells = Map.copyOf(cells);
    details = Map.copyOf(details);
  }

  /** A new row in which nothing is typed. */
  public static Entered added(TableId table) {
    return new Entered(table, Optional.empty(), Map.of(), Map.of());
  }

  /** A row that is there, as it is. */
  public static Entered changed(TableId table, RowId row) {
    return new Entered(table, Optional.of(row), Map.of(), Map.of());
  }

  /** The same with a cell typed. */
  public Entered with(FieldId field, String text) {
    Map<FieldId, String> typed = new LinkedHashMap<>(cells);
    typed.put(field, text);
    return new Entered(table, row, typed, details);
  }

  /** The same with other rows below it. */
  public Entered with(RelationshipId over, List<Entered> rows) {
    Map<RelationshipId, List<Entered>> below = new LinkedHashMap<>(details);
    below.put(over, List.copyOf(rows));
    return new Entered(table, row, cells, below);
  }
}
