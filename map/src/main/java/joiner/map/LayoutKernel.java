package joiner.map;

import static joiner.map.LayoutGraph.Node.NONE;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.eclipse.elk.alg.layered.options.CycleBreakingStrategy;
import org.eclipse.elk.alg.layered.options.LayeredMetaDataProvider;
import org.eclipse.elk.alg.layered.options.LayeredOptions;
import org.eclipse.elk.alg.layered.options.LayeringStrategy;
import org.eclipse.elk.core.RecursiveGraphLayoutEngine;
import org.eclipse.elk.core.data.LayoutMetaDataService;
import org.eclipse.elk.core.math.ElkPadding;
import org.eclipse.elk.core.math.KVector;
import org.eclipse.elk.core.options.CoreOptions;
import org.eclipse.elk.core.options.Direction;
import org.eclipse.elk.core.options.EdgeRouting;
import org.eclipse.elk.core.options.HierarchyHandling;
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
 * Lays a graph out in layers from parents on the left to children on the right, with few crossings
 * (Kozo Sugiyama, Shojiro Tagawa, Mitsuhiko Toda, "Methods for visual understanding of hierarchical
 * system structures", 1981, as in the Eclipse Layout Kernel). The same graph gives the same layout.
 */
final class LayoutKernel {
  /** Another number for each way of laying out, so that none is taken for one of another way. */
  static final int EDITION = 2;

  private static final double JOINT = 10;

  /** Room for the name of a region above its boards. */
  static final double REGION_HEAD = 30;

  private static final double REGION_SIDE = 16;

  /** How much wider than high regions are packed, as most windows are. */
  private static final double PACKED = 1.9;

  static {
    LayoutMetaDataService.getInstance()
        .registerLayoutMetaDataProviders(new LayeredMetaDataProvider());
  }

  private final LayoutGraph graph;
  private final ElkNode root = ElkGraphUtil.createGraph();
  private final List<ElkNode> regions = new ArrayList<>();
  private final List<ElkNode> nodes = new ArrayList<>();
  private final List<ElkEdge> edges = new ArrayList<>();

  /** Where everything lies that nobody wants elsewhere. */
  private Optional<Coordinates> begun = Optional.empty();

  private LayoutKernel(LayoutGraph graph) {
    this.graph = graph;
  }

  /**
   * Lays a graph out; slow for a frame. Where somebody wants boards elsewhere, it is done once
   * without that, and then anew with columns and their order taken from where everything lies and
   * is wanted.
   */
  static Coordinates layOut(LayoutGraph graph) {
    Coordinates free = new LayoutKernel(graph).layOut();
    if (graph.nodes().stream().allMatch(node -> node.wish().isEmpty())) {
      return free;
    }
    var again = new LayoutKernel(graph);
    again.begun = Optional.of(free);
    return again.layOut();
  }

  private Coordinates layOut() {
    boolean joined = graph.edges().stream().anyMatch(this::crosses);
    prepare(root, new ElkPadding(graph.brief() ? 6 : 28), joined || isWanted(NONE));
    if (joined) {
      root.setProperty(CoreOptions.HIERARCHY_HANDLING, HierarchyHandling.INCLUDE_CHILDREN);
    } else if (graph.regions() > 0) { // Each is laid out by itself, and then they are packed.
      root.setProperty(CoreOptions.ASPECT_RATIO, PACKED);
    }
    for (int i = 0; i < graph.regions(); i++) {
      ElkNode region = ElkGraphUtil.createNode(root);
      prepare(
          region,
          new ElkPadding(REGION_HEAD, REGION_SIDE, REGION_SIDE, REGION_SIDE),
          joined || isWanted(i));
      regions.add(region);
    }
    graph.nodes().forEach(this::add);
    graph.edges().forEach(this::add);
    begun.ifPresent(this::place);
    new RecursiveGraphLayoutEngine().layout(root, new BasicProgressMonitor());
    return new Coordinates(
        root.getWidth(),
        root.getHeight(),
        nodes.stream().map(LayoutKernel::corner).toList(),
        edges.stream().map(LayoutKernel::points).toList(),
        regions.stream()
            .map(
                region ->
                    new double[] {
                      region.getX(),
                      region.getY(),
                      region.getX() + region.getWidth(),
                      region.getY() + region.getHeight()
                    })
            .toList());
  }

  private boolean crosses(LayoutGraph.Edge line) {
    return graph.nodes().get(line.from()).region() != graph.nodes().get(line.to()).region();
  }

  /** Whether a board of a region, or of none, is wanted somewhere. */
  private boolean isWanted(int region) {
    return graph.nodes().stream()
        .anyMatch(node -> node.region() == region && node.wish().isPresent());
  }

  /**
   * Says how what is in a region, or in the whole, is laid out.
   *
   * @param wanted whether it follows where everything lies, if that is known
   */
  private void prepare(ElkNode parent, ElkPadding padding, boolean wanted) {
    parent.setProperty(CoreOptions.ALGORITHM, LayeredOptions.ALGORITHM_ID);
    parent.setProperty(CoreOptions.DIRECTION, Direction.RIGHT);
    parent.setProperty(CoreOptions.EDGE_ROUTING, EdgeRouting.ORTHOGONAL);
    parent.setProperty(CoreOptions.RANDOM_SEED, 1);
    parent.setProperty(CoreOptions.PADDING, padding);
    parent.setProperty(CoreOptions.SPACING_NODE_NODE, graph.brief() ? 14.0 : 26.0);
    parent.setProperty(CoreOptions.SPACING_EDGE_EDGE, 9.0);
    parent.setProperty(
        LayeredOptions.SPACING_NODE_NODE_BETWEEN_LAYERS, graph.brief() ? 34.0 : 46.0);
    parent.setProperty(
        LayeredOptions.SPACING_EDGE_NODE_BETWEEN_LAYERS, graph.brief() ? 14.0 : 20.0);
    parent.setProperty(LayeredOptions.SPACING_EDGE_EDGE_BETWEEN_LAYERS, 9.0);
    parent.setProperty(CoreOptions.ASPECT_RATIO, 1.5);
    if (wanted && begun.isPresent()) {
      parent.setProperty(LayeredOptions.CYCLE_BREAKING_STRATEGY, CycleBreakingStrategy.INTERACTIVE);
      parent.setProperty(LayeredOptions.LAYERING_STRATEGY, LayeringStrategy.INTERACTIVE);
      parent.setProperty(LayeredOptions.CROSSING_MINIMIZATION_SEMI_INTERACTIVE, true);
      parent.setProperty(CoreOptions.SEPARATE_CONNECTED_COMPONENTS, false);
    }
  }

  /** Puts everything where it lay or is wanted. */
  private void place(Coordinates at) {
    for (int i = 0; i < regions.size(); i++) {
      double[] corners = at.regions().get(i);
      regions.get(i).setLocation(corners[0], corners[1]);
      regions.get(i).setDimensions(corners[2] - corners[0], corners[3] - corners[1]);
    }
    for (int i = 0; i < nodes.size(); i++) {
      ElkNode node = nodes.get(i);
      LayoutGraph.Node board = graph.nodes().get(i);
      ElkNode in = node.getParent();
      boolean isWhole = in.getParent() == null;
      double width = isWhole ? at.width() : in.getWidth();
      double height = isWhole ? at.height() : in.getHeight();
      double[] of = offset(in);
      double[] lay = at.boards().get(i);
      node.setLocation(
          board.wish().map(w -> w.across() * width - board.width() / 2).orElse(lay[0] - of[0]),
          board.wish().map(w -> w.down() * height - board.height() / 2).orElse(lay[1] - of[1]));
      node.setProperty(LayeredOptions.POSITION, new KVector(node.getX(), node.getY()));
    }
  }

  private static double[] corner(ElkNode node) {
    double[] of = offset(node.getParent());
    return new double[] {of[0] + node.getX(), of[1] + node.getY()};
  }

  /** Where what is in a region, or in the whole, is counted from. */
  private static double[] offset(ElkNode container) {
    return container.getParent() == null
        ? new double[] {0, 0}
        : new double[] {container.getX(), container.getY()};
  }

  private void add(LayoutGraph.Node board) {
    ElkNode node =
        ElkGraphUtil.createNode(board.region() == NONE ? root : regions.get(board.region()));
    node.setDimensions(board.width(), board.height());
    node.setProperty(
        CoreOptions.PORT_CONSTRAINTS,
        graph.brief() || board.free() ? PortConstraints.FIXED_SIDE : PortConstraints.FIXED_POS);
    nodes.add(node);
  }

  private void add(LayoutGraph.Edge line) {
    ElkPort from = port(nodes.get(line.from()), line.fromY(), PortSide.EAST);
    PortSide side = line.from() == line.to() ? PortSide.EAST : PortSide.WEST;
    ElkPort to = port(nodes.get(line.to()), line.toY(), side);
    edges.add(ElkGraphUtil.createSimpleEdge(from, to));
  }

  private static ElkPort port(ElkNode node, double y, PortSide side) {
    ElkPort port = ElkGraphUtil.createPort(node);
    port.setDimensions(JOINT, 0);
    port.setLocation(side == PortSide.EAST ? node.getWidth() : -JOINT, y);
    port.setProperty(CoreOptions.PORT_SIDE, side);
    return port;
  }

  private static double[] points(ElkEdge edge) {
    double[] of = offset(edge.getContainingNode());
    var points = new ArrayList<Double>();
    for (ElkEdgeSection section : edge.getSections()) {
      points.addAll(List.of(of[0] + section.getStartX(), of[1] + section.getStartY()));
      for (ElkBendPoint bend : section.getBendPoints()) {
        points.addAll(List.of(of[0] + bend.getX(), of[1] + bend.getY()));
      }
      points.addAll(List.of(of[0] + section.getEndX(), of[1] + section.getEndY()));
    }
    return points.stream().mapToDouble(Double::doubleValue).toArray();
  }
}
