package joiner.finding;

import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import org.jgrapht.alg.connectivity.KosarajuStrongConnectivityInspector;
import org.jgrapht.graph.DirectedPseudograph;

/** Tables that relationships of one sort lead round from each to itself; linear in both. */
final class Circles {
  private Circles() {}

  /**
   * A circle, of two tables or more.
   *
   * @param tables their labels, in the order of the design
   * @param inside the relationships of that sort among them, likewise
   */
  record Circle(List<String> tables, List<Relationship> inside) {}

  /** The circles of a design. */
  static List<Circle> of(Design design, Predicate<Relationship> sort) {
    var graph = new DirectedPseudograph<TableId, Relationship>(Relationship.class);
    design.tables().forEach(table -> graph.addVertex(table.id()));
    List<Relationship> edges =
        design.relationships().stream().filter(r -> !r.isSelfReference() && sort.test(r)).toList();
    edges.forEach(r -> graph.addEdge(r.child(), r.parent(), r));
    return new KosarajuStrongConnectivityInspector<>(graph)
        .stronglyConnectedSets().stream()
            .filter(circle -> circle.size() > 1)
            .map(circle -> circle(design, circle, edges))
            .toList();
  }

  private static Circle circle(Design design, Set<TableId> circle, List<Relationship> edges) {
    return new Circle(
        design.tables().stream()
            .filter(table -> circle.contains(table.id()))
            .map(Table::label)
            .toList(),
        edges.stream()
            .filter(r -> circle.contains(r.child()) && circle.contains(r.parent()))
            .toList());
  }
}
