package joiner.map;

import joiner.model.AreaId;
import joiner.model.TableId;

/** What a board of a map stands for. */
public sealed interface Spot {
  /** A table. */
  record OfTable(TableId table) implements Spot {}

  /** All tables of an area that is folded. */
  record OfArea(AreaId area) implements Spot {}

  /** A table of elsewhere, where tables of an area refer to it. */
  record StandIn(TableId table, AreaId area) implements Spot {}
}
