package joiner.desktop.work;

import java.util.Optional;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/** What is chosen; the same in all stages. */
public record Selection(
    Optional<TableId> table, Optional<FieldId> field, Optional<RelationshipId> relationship) {
  /** Nothing. */
  public static final Selection NONE =
      new Selection(Optional.empty(), Optional.empty(), Optional.empty());

  /** A table. */
  public static Selection of(TableId table) {
    return new Selection(Optional.of(table), Optional.empty(), Optional.empty());
  }

  /** A field of a table. */
  public static Selection of(TableId table, FieldId field) {
    return new Selection(Optional.of(table), Optional.of(field), Optional.empty());
  }

  /** A relationship, with its child. */
  public static Selection of(TableId child, RelationshipId relationship) {
    return new Selection(Optional.of(child), Optional.empty(), Optional.of(relationship));
  }
}
