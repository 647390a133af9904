package joiner.map;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiPredicate;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Multiplicity;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Where every board and every line stands. The same design gives the same layout. Slow for a frame:
 * run it off the window's thread.
 *
 * @param boards placed boards, by table
 * @param routes placed lines, by relationship
 * @param width of everything, in pixels at zoom 1
 * @param height of everything
 */
public record MapLayout(
    Map<TableId, Placed> boards, Map<RelationshipId, Route> routes, double width, double height) {
  public MapLayout {
    boards = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(boards));
    routes = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(routes));
  }

  /** Nothing is written smaller than that, in pixels. */
  public static final double LEAST_LETTERS = 11;

  /** Nothing. */
  public static final MapLayout EMPTY = new MapLayout(Map.of(), Map.of(), 0, 0);

  /** A board with its upper left corner. */
  public record Placed(Board board, double x, double y) {
    /** Whether a place is on it. */
    public boolean holds(double px, double py) {
      return px >= x && px <= x + board.width() && py >= y && py <= y + board.height();
    }
  }

  /** A line from the parent's edge to the child's edge: x and y of its corners in turn. */
  public record Route(
      RelationshipId id, TableId parent, TableId child, double[] points, Multiplicity ends) {}

  /** Lays out those tables of a design and the relationships between them. */
  public static MapLayout of(Design design, Set<TableId> shown) {
    return of(design, shown, Detail.FIELDS);
  }

  /** Lays out those tables of a design, telling so much of each. */
  public static MapLayout of(Design design, Set<TableId> shown, Detail detail) {
    return new Builder(design, shown, Map.of(), (table, field) -> false, detail).build();
  }

  /**
   * Lays out those tables so that as much as can be read is told of each when all are in sight.
   *
   * @param width of the window, in pixels
   * @param height likewise
   */
  public static MapLayout fitting(Design design, Set<TableId> shown, double width, double height) {
    for (Detail detail : List.of(Detail.FIELDS, Detail.KEYS)) {
      MapLayout layout = of(design, shown, detail);
      double zoom = Math.min(1, Math.min(width / layout.width(), height / layout.height()));
      if (zoom * Board.LINE >= LEAST_LETTERS) {
        return layout;
      }
    }
    return of(design, shown, Detail.NAMES);
  }

  /**
   * Lays out keys and references of those tables, with what is not in another design marked.
   *
   * @param then whether the other is the one of today, so that what it lacks comes; else it goes
   */
  public static MapLayout beside(Design design, Set<TableId> shown, Design other, boolean then) {
    BiPredicate<TableId, FieldId> lacking =
        (table, field) -> other.find(table).filter(t -> t.hasField(field)).isEmpty();
    MapLayout layout = new Builder(design, shown, Map.of(), lacking, Detail.KEYS).build();
    Map<TableId, Placed> marked = new LinkedHashMap<>();
    Board.Mark mark = then ? Board.Mark.COMES : Board.Mark.GOES;
    layout.boards.forEach(
        (table, placed) ->
            marked.put(
                table,
                new Placed(
                    placed.board.marked(field -> lacking.test(table, field), mark),
                    placed.x,
                    placed.y)));
    return new MapLayout(marked, layout.routes, layout.width, layout.height);
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
    return new Builder(design, boards.keySet(), boards, (table, field) -> false, Detail.FIELDS)
        .build();
  }

  private static final class Builder {
    private final Design design;
    private final Map<TableId, Brief> briefs;
    private final Map<TableId, Board> boards = new LinkedHashMap<>();
    private final Map<TableId, Integer> numbers = new HashMap<>();
    private final List<Relationship> lines;

    Builder(
        Design design,
        Set<TableId> shown,
        Map<TableId, Brief> briefs,
        BiPredicate<TableId, FieldId> told,
        Detail detail) {
      this.design = design;
      this.briefs = briefs;
      var drawn = new Boards(design, told, detail);
      for (Table table : design.tables()) {
        if (shown.contains(table.id())) {
          Brief brief = briefs.get(table.id());
          numbers.put(table.id(), boards.size());
          boards.put(table.id(), brief == null ? drawn.of(table) : drawn.brief(table, brief));
        }
      }
      this.lines =
          design.relationships().stream()
              .filter(r -> boards.containsKey(r.parent()) && boards.containsKey(r.child()))
              .toList();
    }

    MapLayout build() {
      return placed(KeptLayouts.of(graph()));
    }

    MapLayout placed(Coordinates at) {
      Map<TableId, Placed> placed = new LinkedHashMap<>();
      boards.forEach(
          (id, board) -> {
            double[] corner = at.boards().get(numbers.get(id));
            placed.put(id, new Placed(board, corner[0], corner[1]));
          });
      Map<RelationshipId, Route> routes = new LinkedHashMap<>();
      for (int i = 0; i < lines.size(); i++) {
        Relationship r = lines.get(i);
        Multiplicity ends = Multiplicity.of(design, r);
        routes.put(r.id(), new Route(r.id(), r.parent(), r.child(), at.lines().get(i), ends));
      }
      return new MapLayout(placed, routes, at.width(), at.height());
    }

    private LayoutGraph graph() {
      List<LayoutGraph.Node> nodes =
          boards.values().stream()
              .map(board -> new LayoutGraph.Node(board.width(), board.height()))
              .toList();
      List<LayoutGraph.Edge> edges =
          lines.stream()
              .map(
                  r ->
                      new LayoutGraph.Edge(
                          numbers.get(r.parent()),
                          boards.get(r.parent()).middleOf(r.parentFields().getFirst()),
                          numbers.get(r.child()),
                          boards.get(r.child()).middleOf(r.childFields().getFirst())))
              .toList();
      boolean close = !briefs.isEmpty() || boards.values().stream().anyMatch(Board::isNamed);
      return new LayoutGraph(close, nodes, edges);
    }
  }

  /** Those tables where they were laid out. */
  static MapLayout placed(Design design, Set<TableId> shown, Detail detail, Coordinates at) {
    return new Builder(design, shown, Map.of(), (table, field) -> false, detail).placed(at);
  }

  /** What the layout of those tables depends on. */
  static LayoutGraph graph(Design design, Set<TableId> shown, Detail detail) {
    return new Builder(design, shown, Map.of(), (table, field) -> false, detail).graph();
  }
}
