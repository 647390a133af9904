package joiner.map;

import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import java.util.stream.Stream;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Multiplicity;
import joiner.model.Pin;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/**
 * Where every board and every line stands. The same design gives the same layout. Slow for a frame:
 * run it off the window's thread.
 *
 * @param boards placed boards, by table
 * @param others boards that are no table: areas that are folded, and stand-ins
 * @param regions areas that are told apart
 * @param routes placed lines, by relationship
 * @param bundles lines to and from areas that are folded
 * @param folded the areas of tables that are not seen because they are folded
 * @param width of everything, in pixels at zoom 1
 * @param height of everything
 */
public record MapLayout(
    Map<TableId, Placed> boards,
    List<Placed> others,
    List<Region> regions,
    Map<RelationshipId, Route> routes,
    List<Bundle> bundles,
    Map<TableId, AreaId> folded,
    double width,
    double height) {
  public MapLayout {
    boards = Collections.unmodifiableMap(new LinkedHashMap<>(boards));
    others = List.copyOf(others);
    regions = List.copyOf(regions);
    routes = Collections.unmodifiableMap(new LinkedHashMap<>(routes));
    bundles = List.copyOf(bundles);
    folded = Collections.unmodifiableMap(new LinkedHashMap<>(folded));
  }

  /** Nothing is written smaller than that, in pixels. */
  public static final double LEAST_LETTERS = 11;

  /** Nothing. */
  public static final MapLayout EMPTY =
      new MapLayout(Map.of(), List.of(), List.of(), Map.of(), List.of(), Map.of(), 0, 0);

  /** A board with its upper left corner. */
  public record Placed(Spot spot, Board board, double x, double y) {
    /** Whether a place is on it. */
    public boolean holds(double px, double py) {
      return px >= x && px <= x + board.width() && py >= y && py <= y + board.height();
    }

    Placed with(Board other) {
      return new Placed(spot, other, x, y);
    }
  }

  /** An area with the boards of its tables in it. */
  public record Region(
      AreaId area, String name, int hue, double x, double y, double width, double height) {
    /** Whether a place is in it. */
    public boolean holds(double px, double py) {
      return px >= x && px <= x + width && py >= y && py <= y + height;
    }

    /** Whether a place is on its upper rim, where its name stands. */
    public boolean isHeadAt(double px, double py) {
      return holds(px, py) && py <= y + LayoutKernel.REGION_HEAD;
    }
  }

  /**
   * A line from the parent's edge to the child's edge: x and y of its corners in turn. The edge may
   * be that of a stand-in.
   */
  public record Route(
      RelationshipId id, TableId parent, TableId child, double[] points, Multiplicity ends) {}

  /** All relationships from one board to another, one of which at least is a folded area. */
  public record Bundle(Spot parent, Spot child, List<RelationshipId> all, double[] points) {}

  /** Every board, whatever it stands for. */
  public Stream<Placed> everything() {
    return Stream.concat(boards.values().stream(), others.stream());
  }

  /** The board that a table is seen as: its own, or that of its area. */
  public Optional<Placed> placeOf(TableId table) {
    return Optional.ofNullable(boards.get(table))
        .or(
            () ->
                Optional.ofNullable(folded.get(table))
                    .flatMap(area -> placeOf(new Spot.OfArea(area))));
  }

  /** The board that stands for something. */
  public Optional<Placed> placeOf(Spot spot) {
    return everything().filter(placed -> placed.spot.equals(spot)).findFirst();
  }

  /** How many tables there are, those of folded areas among them. */
  public int tables() {
    return boards.size() + folded.size();
  }

  /** How many relationships lines are drawn for. */
  public int relationships() {
    return routes.size() + bundles.stream().mapToInt(bundle -> bundle.all.size()).sum();
  }

  /** What says that the middle of a table's board is wanted at a place of the map. */
  public Pin pin(TableId table, double atX, double atY) {
    Placed board = boards.get(table);
    Optional<Region> in =
        board == null
            ? Optional.empty()
            : regions.stream().filter(region -> region.holds(board.x, board.y)).findFirst();
    return in.map(r -> Pin.at(table, (atX - r.x) / r.width, (atY - r.y) / r.height))
        .orElseGet(() -> Pin.at(table, atX / width, atY / height));
  }

  /** Lays out what is to be shown of a design, telling so much of each table. */
  public static MapLayout of(Design design, Scope scope, Detail detail) {
    return new LayoutBuilder(design, scope, detail).build();
  }

  /**
   * Lays out what is to be shown so that as much as can be read is told of each table when all are
   * in sight.
   *
   * @param scopes what may be shown, what is preferred first; one at least
   * @param width of the window, in pixels
   * @param height likewise
   */
  public static MapLayout fitting(Design design, List<Scope> scopes, double width, double height) {
    for (Detail detail : List.of(Detail.FIELDS, Detail.KEYS)) {
      for (Scope scope : scopes) {
        MapLayout layout = of(design, scope, detail);
        if (layout.zoom(width, height) * Board.LINE >= LEAST_LETTERS) {
          return layout;
        }
      }
    }
    return scopes.stream()
        .map(scope -> of(design, scope, Detail.NAMES))
        .max(Comparator.comparing(layout -> layout.zoom(width, height)))
        .orElseThrow();
  }

  /** How large it is when all of it is in sight of a window, at most 1. */
  private double zoom(double wide, double high) {
    return Math.min(1, Math.min(wide / width, high / height));
  }

  /**
   * Lays out keys and references of those tables, with what is not in another design marked.
   *
   * @param then whether the other is the one of today, so that what it lacks comes; else it goes
   */
  public static MapLayout beside(Design design, Set<TableId> shown, Design other, boolean then) {
    BiPredicate<TableId, FieldId> lacking =
        (table, field) -> other.find(table).filter(t -> t.hasField(field)).isEmpty();
    MapLayout layout =
        new LayoutBuilder(design, Scope.of(shown), Map.of(), lacking, Detail.KEYS).build();
    Map<TableId, Placed> marked = new LinkedHashMap<>();
    Board.Mark mark = then ? Board.Mark.COMES : Board.Mark.GOES;
    layout.boards.forEach(
        (table, placed) ->
            marked.put(
                table,
                placed.with(placed.board.marked(field -> lacking.test(table, field), mark))));
    return new MapLayout(
        marked,
        layout.others,
        layout.regions,
        layout.routes,
        layout.bundles,
        layout.folded,
        layout.width,
        layout.height);
  }

  /**
   * A small board.
   *
   * @param title its name
   * @param caption a line of text in the place of its fields
   */
  public record Brief(String title, String caption) {}

  /** Lays out small boards of those tables. */
  public static MapLayout brief(Design design, Map<TableId, Brief> boards) {
    Scope scope = Scope.of(boards.keySet());
    return new LayoutBuilder(design, scope, boards, (table, field) -> false, Detail.FIELDS).build();
  }
}
