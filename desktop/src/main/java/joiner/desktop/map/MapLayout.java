package joiner.desktop.map;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import joiner.model.Design;
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

  /** Nothing. */
  public static final MapLayout EMPTY = new MapLayout(Map.of(), Map.of(), 0, 0);

  /** A board with its upper left corner. */
  public record Placed(Board board, double x, double y) {
    boolean holds(double px, double py) {
      return px >= x && px <= x + board.width() && py >= y && py <= y + board.height();
    }
  }

  /** A line from the parent's edge to the child's edge: x and y of its corners in turn. */
  public record Route(
      RelationshipId id, TableId parent, TableId child, double[] points, Multiplicity ends) {}

  /** Lays out those tables of a design and the relationships between them. */
  public static MapLayout of(Design design, Set<TableId> shown) {
    return new Builder(design, shown, Map.of()).build();
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
    return new Builder(design, boards.keySet(), boards).build();
  }

  private static final class Builder {
    private final Design design;
    private final Map<TableId, Brief> briefs;
    private final Map<TableId, Board> boards = new LinkedHashMap<>();
    private final Map<TableId, Integer> numbers = new HashMap<>();
    private final List<Relationship> lines;

    Builder(Design design, Set<TableId> shown, Map<TableId, Brief> briefs) {
      this.design = design;
      this.briefs = briefs;
      var drawn = new Boards(design);
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
      Coordinates at = KeptLayouts.of(graph());
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
      return new LayoutGraph(!briefs.isEmpty(), nodes, edges);
    }
  }

  /** What the layout of those tables depends on. */
  static LayoutGraph graph(Design design, Set<TableId> shown) {
    return new Builder(design, shown, Map.of()).graph();
  }
}
