package joiner.finding;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import joiner.edit.ChangeRelationship;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.WordList;
import org.jgrapht.alg.connectivity.KosarajuStrongConnectivityInspector;
import org.jgrapht.graph.DirectedPseudograph;

/** Deletes that are taken along do not come round to where they began. */
final class CascadeCircle implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("cascade-circle", Severity.WARNING, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    var graph = new DirectedPseudograph<TableId, Relationship>(Relationship.class);
    for (Relationship r : design.design().relationships()) {
      if (r.onDelete() == ReferentialAction.CASCADE && !r.isSelfReference()) {
        graph.addVertex(r.parent());
        graph.addVertex(r.child());
        graph.addEdge(r.parent(), r.child(), r);
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
    List<String> tables =
        design.design().tables().stream()
            .filter(table -> circle.contains(table.id()))
            .map(Table::label)
            .toList();
    Relationship last =
        edges.stream()
            .filter(r -> circle.contains(r.child()) && circle.contains(r.parent()))
            .reduce((one, other) -> other)
            .orElseThrow();
    found.accept(
        FINDING.about(
            last,
            "A delete goes round "
                + WordList.and(tables)
                + ": one row can take most of what is there along.",
            "Nobody who deletes a row sees how far it goes, and some engines refuse such a circle.",
            new Remedy(
                "Let " + last.name() + " refuse the delete",
                ChangeRelationship.onDelete(last, ReferentialAction.NO_ACTION))));
  }
}
