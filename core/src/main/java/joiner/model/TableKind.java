package joiner.model;

import java.util.Optional;

/** What a table is for. */
public sealed interface TableKind {

  /** An ordinary table. */
  record Plain() implements TableKind {}

  /**
   * A list that other tables pick from; its rows belong to the design.
   *
   * @param sortBy field the list is sorted by
   * @param retired true/false field that marks rows no longer offered
   */
  record Lookup(Optional<FieldId> sortBy, Optional<FieldId> retired) implements TableKind {}

  /**
   * A join table: each row is a pair.
   *
   * @param first relationship to one side
   * @param second relationship to the other side
   */
  record Join(RelationshipId first, RelationshipId second) implements TableKind {}

  /** The same kind when a field of the table has gone. */
  default TableKind without(FieldId gone) {
    return switch (this) {
      case Lookup(var sortBy, var retired) ->
          new Lookup(
              sortBy.filter(field -> !field.equals(gone)),
              retired.filter(field -> !field.equals(gone)));
      case Plain plain -> plain;
      case Join join -> join;
    };
  }
}
