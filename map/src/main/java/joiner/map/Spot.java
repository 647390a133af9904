package joiner.map;

import java.util.Optional;
import joiner.model.AreaId;
import joiner.model.TableId;

/** What a board of a map stands for. */
public sealed interface Spot {
  /** The table that is meant, where it is one. */
  default Optional<TableId> asTable() {
    return switch (this) {
      case OfTable(TableId table) -> Optional.of(table);
      case StandIn(TableId table, AreaId area) -> Optional.of(table);
      case OfArea area -> Optional.empty();
    };
  }

  /** A table. */
  record OfTable(TableId table) implements Spot {}

  /** All tables of an area that is folded. */
  record OfArea(AreaId area) implements Spot {}

  /** A table of elsewhere, where tables of an area refer to it. */
  record StandIn(TableId table, AreaId area) implements Spot {}
}
