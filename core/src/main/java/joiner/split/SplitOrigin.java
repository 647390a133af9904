package joiner.split;

import java.util.List;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/** Where the values of a field of a split table are found afterwards. */
sealed interface SplitOrigin {
  /** Relationships to follow from the split table, each from child to parent. */
  List<RelationshipId> path();

  /** The table the value itself stands in. */
  default TableId home(Design design, TableId main) {
    return switch (this) {
      case Stored stored ->
          path().isEmpty() ? main : design.relationship(path().getLast()).parent();
      case Numbered numbered -> design.relationship(numbered.detail()).child();
      case Listed listed -> design.relationship(listed.detail()).child();
    };
  }

  /** In a field of the table the path leads to. */
  record Stored(List<RelationshipId> path, FieldId field) implements SplitOrigin {
    public Stored {
      path = List.copyOf(path);
    }
  }

  /**
   * In one row of a detail table: the one at a place.
   *
   * @param detail the relationship from the detail table
   * @param number the field that holds the place
   * @param place from 1
   */
  record Numbered(
      List<RelationshipId> path, RelationshipId detail, FieldId number, int place, Value value)
      implements SplitOrigin {
    public Numbered {
      path = List.copyOf(path);
    }
  }

  /** In all rows of a detail table, in order, with a separator between. */
  record Listed(
      List<RelationshipId> path,
      RelationshipId detail,
      FieldId number,
      String separator,
      List<Value> values)
      implements SplitOrigin {
    public Listed {
      path = List.copyOf(path);
      values = List.copyOf(values);
    }
  }

  /**
   * A value of a row, perhaps over a lookup.
   *
   * @param lookup at most one relationship to follow
   */
  record Value(List<RelationshipId> lookup, TableId table, FieldId field) {
    public Value {
      lookup = List.copyOf(lookup);
    }
  }
}
