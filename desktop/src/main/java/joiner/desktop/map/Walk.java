package joiner.desktop.map;

import java.util.Comparator;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.map.MapLayout;
import joiner.model.TableId;

/**
 * Goes from board to board by the arrow keys: sideways along relationships, up and down by place.
 */
final class Walk {
  private Walk() {}

  /** Where an arrow leads. */
  enum Way {
    /** To what the table refers to. */
    LEFT,
    /** To what refers to the table. */
    RIGHT,
    UP,
    DOWN
  }

  /** The next board; the first of all where none is chosen, none where nothing lies there. */
  static Optional<TableId> from(MapLayout layout, Optional<TableId> table, Way way) {
    Optional<MapLayout.Placed> at = table.map(layout.boards()::get);
    if (at.isEmpty()) {
      return layout.boards().values().stream()
          .min(Comparator.comparing(MapLayout.Placed::x).thenComparing(MapLayout.Placed::y))
          .map(placed -> placed.board().id());
    }
    MapLayout.Placed here = at.get();
    return switch (way) {
      case LEFT -> nearest(here, along(layout, here, true), true);
      case RIGHT -> nearest(here, along(layout, here, false), true);
      case UP ->
          nearest(here, layout.boards().values().stream().filter(p -> p.y() < here.y()), false);
      case DOWN ->
          nearest(here, layout.boards().values().stream().filter(p -> p.y() > here.y()), false);
    };
  }

  private static Stream<MapLayout.Placed> along(
      MapLayout layout, MapLayout.Placed here, boolean toParents) {
    TableId id = here.board().id();
    return layout.routes().values().stream()
        .filter(route -> !route.parent().equals(route.child()))
        .filter(route -> id.equals(toParents ? route.child() : route.parent()))
        .map(route -> layout.boards().get(toParents ? route.parent() : route.child()));
  }

  /** Sideways the height counts most, up and down the column. */
  private static Optional<TableId> nearest(
      MapLayout.Placed here, Stream<MapLayout.Placed> others, boolean sideways) {
    double acrossX = sideways ? 1 : 3;
    double acrossY = sideways ? 3 : 1;
    return others
        .min(
            Comparator.comparingDouble(
                other ->
                    acrossX * Math.abs(middleX(other) - middleX(here))
                        + acrossY * Math.abs(middleY(other) - middleY(here))))
        .map(placed -> placed.board().id());
  }

  private static double middleX(MapLayout.Placed placed) {
    return placed.x() + placed.board().width() / 2;
  }

  private static double middleY(MapLayout.Placed placed) {
    return placed.y() + placed.board().height() / 2;
  }
}
