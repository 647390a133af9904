package joiner.map;

import java.util.ArrayList;
import java.util.List;
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
 * Lays a graph out in layers from parents on the left to children on the right, with few crossings
 * (Kozo Sugiyama, Shojiro Tagawa, Mitsuhiko Toda, "Methods for visual understanding of hierarchical
 * system structures", 1981, as in the Eclipse Layout Kernel). The same graph gives the same layout.
 */
final class LayoutKernel {
  private static final double JOINT = 10;

  static {
    LayoutMetaDataService.getInstance()
        .registerLayoutMetaDataProviders(new LayeredMetaDataProvider());
  }

  private final LayoutGraph graph;
  private final ElkNode root = ElkGraphUtil.createGraph();
  private final List<ElkNode> nodes = new ArrayList<>();
  private final List<ElkEdge> edges = new ArrayList<>();

  private LayoutKernel(LayoutGraph graph) {
    this.graph = graph;
  }

  /** Lays a graph out; slow for a frame. */
  static Coordinates layOut(LayoutGraph graph) {
    return new LayoutKernel(graph).layOut();
  }

  private Coordinates layOut() {
    root.setProperty(CoreOptions.ALGORITHM, LayeredOptions.ALGORITHM_ID);
    root.setProperty(CoreOptions.DIRECTION, Direction.RIGHT);
    root.setProperty(CoreOptions.EDGE_ROUTING, EdgeRouting.ORTHOGONAL);
    root.setProperty(CoreOptions.RANDOM_SEED, 1);
    root.setProperty(CoreOptions.PADDING, new ElkPadding(graph.brief() ? 6 : 28));
    root.setProperty(CoreOptions.SPACING_NODE_NODE, graph.brief() ? 14.0 : 26.0);
    root.setProperty(CoreOptions.SPACING_EDGE_EDGE, 9.0);
    root.setProperty(LayeredOptions.SPACING_NODE_NODE_BETWEEN_LAYERS, graph.brief() ? 34.0 : 46.0);
    root.setProperty(LayeredOptions.SPACING_EDGE_NODE_BETWEEN_LAYERS, graph.brief() ? 14.0 : 20.0);
    root.setProperty(LayeredOptions.SPACING_EDGE_EDGE_BETWEEN_LAYERS, 9.0);
    root.setProperty(CoreOptions.ASPECT_RATIO, 1.5);
    graph.nodes().forEach(this::add);
    graph.edges().forEach(this::add);
    new RecursiveGraphLayoutEngine().layout(root, new BasicProgressMonitor());
    return new Coordinates(
        root.getWidth(),
        root.getHeight(),
        nodes.stream().map(node -> new double[] {node.getX(), node.getY()}).toList(),
        edges.stream().map(LayoutKernel::points).toList());
  }

  private void add(LayoutGraph.Node board) {
    ElkNode node = ElkGraphUtil.createNode(root);
    node.setDimensions(board.width(), board.height());
    node.setProperty(
        CoreOptions.PORT_CONSTRAINTS,
        graph.brief() ? PortConstraints.FIXED_SIDE : PortConstraints.FIXED_POS);
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
