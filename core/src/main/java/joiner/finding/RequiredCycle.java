package joiner.finding;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import joiner.edit.SetParentRequired;
import joiner.model.Multiplicity;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import org.jgrapht.alg.connectivity.KosarajuStrongConnectivityInspector;
import org.jgrapht.graph.DefaultDirectedGraph;

/** No circle of tables in which each row needs a row of the next first. */
final class RequiredCycle implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("required-cycle", Severity.ERROR, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    var graph = new DefaultDirectedGraph<TableId, Relationship>(Relationship.class);
    design.design().tables().forEach(table -> graph.addVertex(table.id()));
    for (Relationship r : design.design().relationships()) {
      if (!r.isSelfReference() && Multiplicity.of(design.design(), r).parentRequired()) {
        graph.addEdge(r.child(), r.parent(), r);
      }
    }
    for (Set<TableId> circle :
        new KosarajuStrongConnectivityInspector<>(graph).stronglyConnectedSets()) {
      if (circle.size() > 1) {
        report(design, circle, graph.edgeSet(), found);
      }
    }
  }

  private static void report(
      CheckedDesign design, Set<TableId> circle, Set<Relationship> edges, Consumer<Finding> found) {
    String tables =
        design.design().tables().stream()
            .filter(t -> circle.contains(t.id()))
            .map(Table::label)
            .collect(Collectors.joining(", "));
    List<Relationship> inside =
        edges.stream()
            .filter(r -> circle.contains(r.child()) && circle.contains(r.parent()))
            .toList();
    Relationship first = inside.getFirst();
    found.accept(
        FINDING.about(
            first,
            tables + " need each other: no first row can ever be entered.",
            "Each row requires a row of the next table to be there already, all the way round.",
            new Remedy(
                "Make " + first.name() + " optional",
                new SetParentRequired(first.id(), "make " + first.name() + " optional", false))));
  }
}
