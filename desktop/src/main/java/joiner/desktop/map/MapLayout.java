package joiner.desktop.map;

import java.util.ArrayList;
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
import org.eclipse.elk.alg.layered.options.LayeredMetaDataProvider;
import org.eclipse.elk.alg.layered.options.LayeredOptions;
import org.eclipse.elk.core.RecursiveGraphLayoutEngine;
import org.eclipse.elk.core.data.LayoutMetaDataService;
import org.eclipse.elk.core.math.ElkPadding;
import org.eclipse.elk.core.options.CoreOptions;
import org.eclipse.elk.core.options.Direction;
import org.eclipse.elk.core.options.EdgeRouting;
import org.eclipse.elk.core.options.PortConstraints;
import org.eclipse.elk.core.options.PortSide;
import org.eclipse.elk.core.util.BasicProgressMonitor;
import org.eclipse.elk.graph.ElkBendPoint;
import org.eclipse.elk.graph.ElkEdge;
import org.eclipse.elk.graph.ElkEdgeSection;
import org.eclipse.elk.graph.ElkNode;
import org.eclipse.elk.graph.ElkPort;
import org.eclipse.elk.graph.util.ElkGraphUtil;

/**
 * Where every board and every line stands. Laid out in layers from parents on the left to children
 * on the right, with few crossings (Kozo Sugiyama, Shojiro Tagawa, Mitsuhiko Toda, "Methods for
 * visual understanding of hierarchical system structures", 1981, as in the Eclipse Layout Kernel).
 * The same design gives the same layout. Slow for a frame: run it off the window's thread.
 *
 * @param boards placed boards, by table
 * @param routes placed lines, by relationship
 * @param width of everything, in pixels at zoom 1
 * @param height of everything
 */
public record MapLayout(
    Map<TableId, Placed> boards, Map<RelationshipId, Route> routes, double width, double height) {
  private static final double JOINT = 10;

  static {
    LayoutMetaDataService.getInstance()
        .registerLayoutMetaDataProviders(new LayeredMetaDataProvider());
  }

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
    private final Set<TableId> shown;
    private final Map<TableId, Brief> briefs;
    private final ElkNode root = ElkGraphUtil.createGraph();
    private final Map<TableId, ElkNode> nodes = new LinkedHashMap<>();
    private final Map<TableId, Board> boards = new HashMap<>();
    private final Map<Relationship, ElkEdge> edges = new LinkedHashMap<>();

    Builder(Design design, Set<TableId> shown, Map<TableId, Brief> briefs) {
      this.design = design;
      this.shown = shown;
      this.briefs = briefs;
    }

    MapLayout build() {
      root.setProperty(CoreOptions.ALGORITHM, LayeredOptions.ALGORITHM_ID);
      root.setProperty(CoreOptions.DIRECTION, Direction.RIGHT);
      root.setProperty(CoreOptions.EDGE_ROUTING, EdgeRouting.ORTHOGONAL);
      root.setProperty(CoreOptions.RANDOM_SEED, 1);
      root.setProperty(CoreOptions.PADDING, new ElkPadding(briefs.isEmpty() ? 28 : 6));
      root.setProperty(CoreOptions.SPACING_NODE_NODE, briefs.isEmpty() ? 26.0 : 14.0);
      root.setProperty(CoreOptions.SPACING_EDGE_EDGE, 9.0);
      root.setProperty(
          LayeredOptions.SPACING_NODE_NODE_BETWEEN_LAYERS, briefs.isEmpty() ? 46.0 : 34.0);
      root.setProperty(
          LayeredOptions.SPACING_EDGE_NODE_BETWEEN_LAYERS, briefs.isEmpty() ? 20.0 : 14.0);
      root.setProperty(LayeredOptions.SPACING_EDGE_EDGE_BETWEEN_LAYERS, 9.0);
      root.setProperty(CoreOptions.ASPECT_RATIO, 1.5);
      addBoards();
      addEdges();
      new RecursiveGraphLayoutEngine().layout(root, new BasicProgressMonitor());
      return read();
    }

    private void addBoards() {
      var drawn = new Boards(design);
      for (Table table : design.tables()) {
        if (shown.contains(table.id())) {
          Brief brief = briefs.get(table.id());
          Board board = brief == null ? drawn.of(table) : drawn.brief(table, brief);
          ElkNode node = ElkGraphUtil.createNode(root);
          node.setDimensions(board.width(), board.height());
          node.setProperty(
              CoreOptions.PORT_CONSTRAINTS,
              brief == null ? PortConstraints.FIXED_POS : PortConstraints.FIXED_SIDE);
          nodes.put(table.id(), node);
          boards.put(table.id(), board);
        }
      }
    }

    private void addEdges() {
      for (Relationship r : design.relationships()) {
        if (nodes.containsKey(r.parent()) && nodes.containsKey(r.child())) {
          ElkPort from =
              port(
                  nodes.get(r.parent()),
                  boards.get(r.parent()).middleOf(r.parentFields().getFirst()),
                  PortSide.EAST);
          PortSide side = r.isSelfReference() ? PortSide.EAST : PortSide.WEST;
          ElkPort to =
              port(
                  nodes.get(r.child()),
                  boards.get(r.child()).middleOf(r.childFields().getFirst()),
                  side);
          edges.put(r, ElkGraphUtil.createSimpleEdge(from, to));
        }
      }
    }

    private static ElkPort port(ElkNode node, double y, PortSide side) {
      ElkPort port = ElkGraphUtil.createPort(node);
      port.setDimensions(JOINT, 0);
      port.setLocation(side == PortSide.EAST ? node.getWidth() : -JOINT, y);
      port.setProperty(CoreOptions.PORT_SIDE, side);
      return port;
    }

    private MapLayout read() {
      Map<TableId, Placed> placed = new LinkedHashMap<>();
      nodes.forEach(
          (id, node) -> placed.put(id, new Placed(boards.get(id), node.getX(), node.getY())));
      Map<RelationshipId, Route> routes = new LinkedHashMap<>();
      edges.forEach(
          (r, edge) ->
              routes.put(
                  r.id(),
                  new Route(
                      r.id(), r.parent(), r.child(), points(edge), Multiplicity.of(design, r))));
      return new MapLayout(placed, routes, root.getWidth(), root.getHeight());
    }

    private static double[] points(ElkEdge edge) {
      var points = new ArrayList<Double>();
      for (ElkEdgeSection section : edge.getSections()) {
        points.addAll(List.of(section.getStartX(), section.getStartY()));
        for (ElkBendPoint bend : section.getBendPoints()) {
          points.addAll(List.of(bend.getX(), bend.getY()));
        }
        points.addAll(List.of(section.getEndX(), section.getEndY()));
      }
      return points.stream().mapToDouble(Double::doubleValue).toArray();
    }
  }
}
