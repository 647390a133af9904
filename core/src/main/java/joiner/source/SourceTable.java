package joiner.source;

import java.util.Optional;
import joiner.rows.EncodedTable;

/**
 * One table of a source.
 *
 * @param cells its rows
 * @param parent for a repeating section the table it repeats in
 */
public record SourceTable(EncodedTable cells, Optional<Parent> parent) {
  /** A table on its own. */
  public static SourceTable of(EncodedTable cells) {
    return new SourceTable(cells, Optional.empty());
  }

  /** What a table is called. */
  public String name() {
    return cells.name();
  }

  /** To which row of another table each row belongs. */
  public static final class Parent {
    private final int table;
    private final int[] rows;

    Parent(int table, int[] rows) {
      this.table = table;
      this.rows = rows;
    }

    /** The place of the other table in the source, from 0. */
    public int table() {
      return table;
    }

    /** The row of the other table that a row belongs to, both from 0. */
    public int rowOf(int row) {
      return rows[row];
    }
  }
}
