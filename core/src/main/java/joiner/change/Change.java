package joiner.change;

import java.util.List;
import java.util.Optional;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.Stretch;

/**
 * One thing that became another. Places count from 0 and hold at the moment of the change, when
 * those listed before it are done.
 */
public sealed interface Change {
  /** The change that takes this one back. */
  Change inverse();

  /** A change of the design. */
  sealed interface OfDesign extends Change {}

  /** A change of rows; the design stays as it is. */
  sealed interface OfRows extends Change {}

  /** The design says something else of itself. */
  record HeadingChanged(Heading before, Heading after) implements OfDesign {
    @Override
    public Change inverse() {
      return new HeadingChanged(after, before);
    }
  }

  /** A table came, without rows. */
  record TableAdded(Table table, int place) implements OfDesign {
    @Override
    public Change inverse() {
      return new TableRemoved(table, place);
    }
  }

  /** A table without rows went. */
  record TableRemoved(Table table, int place) implements OfDesign {
    @Override
    public Change inverse() {
      return new TableAdded(table, place);
    }
  }

  /** A table says something else beside its fields. */
  record TableChanged(TableId table, TableFacts before, TableFacts after) implements OfDesign {
    @Override
    public Change inverse() {
      return new TableChanged(table, after, before);
    }
  }

  /** The tables stand in another order. */
  record TablesOrdered(List<TableId> before, List<TableId> after) implements OfDesign {
    public TablesOrdered {
      before = List.copyOf(before);
      after = List.copyOf(after);
    }

    @Override
    public Change inverse() {
      return new TablesOrdered(after, before);
    }
  }

  /** A field came; rows have no value in it. */
  record FieldAdded(TableId table, Field field, int place) implements OfDesign {
    @Override
    public Change inverse() {
      return new FieldRemoved(table, field, place);
    }
  }

  /** A field without values went. */
  record FieldRemoved(TableId table, Field field, int place) implements OfDesign {
    @Override
    public Change inverse() {
      return new FieldAdded(table, field, place);
    }
  }

  /** A field is another one under the same id. */
  record FieldChanged(TableId table, Field before, Field after) implements OfDesign {
    @Override
    public Change inverse() {
      return new FieldChanged(table, after, before);
    }
  }

  /** The fields of a table stand in another order. */
  record FieldsOrdered(TableId table, List<FieldId> before, List<FieldId> after)
      implements OfDesign {
    public FieldsOrdered {
      before = List.copyOf(before);
      after = List.copyOf(after);
    }

    @Override
    public Change inverse() {
      return new FieldsOrdered(table, after, before);
    }
  }

  /** A relationship came. */
  record RelationshipAdded(Relationship relationship, int place) implements OfDesign {
    @Override
    public Change inverse() {
      return new RelationshipRemoved(relationship, place);
    }
  }

  /** A relationship went. */
  record RelationshipRemoved(Relationship relationship, int place) implements OfDesign {
    @Override
    public Change inverse() {
      return new RelationshipAdded(relationship, place);
    }
  }

  /** A relationship is another one under the same id. */
  record RelationshipChanged(Relationship before, Relationship after) implements OfDesign {
    @Override
    public Change inverse() {
      return new RelationshipChanged(after, before);
    }
  }

  /** The relationships stand in another order. */
  record RelationshipsOrdered(List<RelationshipId> before, List<RelationshipId> after)
      implements OfDesign {
    public RelationshipsOrdered {
      before = List.copyOf(before);
      after = List.copyOf(after);
    }

    @Override
    public Change inverse() {
      return new RelationshipsOrdered(after, before);
    }
  }

  /**
   * Rows came.
   *
   * @param places where they stand then
   */
  record RowsAdded(TableId table, List<Stretch> places, Rows rows) implements OfRows {
    public RowsAdded {
      places = List.copyOf(places);
    }

    @Override
    public Change inverse() {
      return new RowsRemoved(table, places, rows);
    }
  }

  /**
   * Rows went.
   *
   * @param places where they stood
   */
  record RowsRemoved(TableId table, List<Stretch> places, Rows rows) implements OfRows {
    public RowsRemoved {
      places = List.copyOf(places);
    }

    @Override
    public Change inverse() {
      return new RowsAdded(table, places, rows);
    }
  }

  /** One cell holds another text; empty is NULL. */
  record CellChanged(
      TableId table, FieldId field, int row, Optional<String> before, Optional<String> after)
      implements OfRows {
    @Override
    public Change inverse() {
      return new CellChanged(table, field, row, after, before);
    }
  }

  /** Many cells of a field hold other texts; both sides are all rows with that field alone. */
  record ColumnChanged(TableId table, FieldId field, Rows before, Rows after) implements OfRows {
    @Override
    public Change inverse() {
      return new ColumnChanged(table, field, after, before);
    }
  }

  /** Rows of a table stay in another file, otherwise or no longer in one. */
  record LinkChanged(TableId table, Optional<LinkedRows> before, Optional<LinkedRows> after)
      implements OfRows {
    @Override
    public Change inverse() {
      return new LinkChanged(table, after, before);
    }
  }
}
