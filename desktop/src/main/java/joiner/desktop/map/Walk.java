package joiner.desktop.map;

import java.util.Comparator;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.map.MapLayout;
import joiner.map.Spot;
import joiner.model.TableId;

/**
 * Goes from board to board by the arrow keys: sideways along relationships, up and down by place. A
 * folded area is told by the first of its tables.
 */
final class Walk {
  private final MapLayout layout;

  private Walk(MapLayout layout) {
    this.layout = layout;
  }

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
    return new Walk(layout).from(table, way);
  }

  private Optional<TableId> from(Optional<TableId> table, Way way) {
    Optional<MapLayout.Placed> at = table.flatMap(layout::placeOf);
    if (at.isEmpty()) {
      return all()
          .min(Comparator.comparing(MapLayout.Placed::x).thenComparing(MapLayout.Placed::y))
          .flatMap(this::table);
    }
    MapLayout.Placed here = at.get();
    return switch (way) {
      case LEFT -> nearest(here, along(here, true), true);
      case RIGHT -> nearest(here, along(here, false), true);
      case UP -> nearest(here, all().filter(p -> p.y() < here.y()), false);
      case DOWN -> nearest(here, all().filter(p -> p.y() > here.y()), false);
    };
  }

  /** Every board that is in its own place. */
  private Stream<MapLayout.Placed> all() {
    return layout.everything().filter(placed -> !(placed.spot() instanceof Spot.StandIn));
  }

  private Optional<TableId> table(MapLayout.Placed placed) {
    return placed
        .spot()
        .asTable()
        .or(
            () ->
                layout.folded().entrySet().stream()
                    .filter(in -> placed.spot().equals(new Spot.OfArea(in.getValue())))
                    .map(Map.Entry::getKey)
                    .findFirst());
  }

  private Stream<MapLayout.Placed> along(MapLayout.Placed here, boolean toParents) {
    Stream<Optional<MapLayout.Placed>> byLine =
        layout.routes().values().stream()
            .filter(route -> !route.parent().equals(route.child()))
            .filter(route -> isAt(here, toParents ? route.child() : route.parent()))
            .map(route -> layout.placeOf(toParents ? route.parent() : route.child()));
    Stream<Optional<MapLayout.Placed>> byBundle =
        layout.bundles().stream()
            .filter(bundle -> here.spot().equals(toParents ? bundle.child() : bundle.parent()))
            .map(bundle -> toParents ? bundle.parent() : bundle.child())
            .map(layout::placeOf);
    return Stream.concat(byLine, byBundle).flatMap(Optional::stream);
  }

  private static boolean isAt(MapLayout.Placed here, TableId table) {
    return here.spot().equals(new Spot.OfTable(table));
  }

  /** Sideways the height counts most, up and down the column. */
  private Optional<TableId> nearest(
      MapLayout.Placed here, Stream<MapLayout.Placed> others, boolean sideways) {
    double acrossX = sideways ? 1 : 3;
    double acrossY = sideways ? 3 : 1;
    return others
        .min(
            Comparator.comparingDouble(
                other ->
                    acrossX * Math.abs(middleX(other) - middleX(here))
                        + acrossY * Math.abs(middleY(other) - middleY(here))))
        .flatMap(this::table);
  }

  private static double middleX(MapLayout.Placed placed) {
    return placed.x() + placed.board().width() / 2;
  }

  private static double middleY(MapLayout.Placed placed) {
    return placed.y() + placed.board().height() / 2;
  }
}
