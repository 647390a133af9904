package joiner.finding;

import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.naming.WordList;
import org.jgrapht.alg.connectivity.ConnectivityInspector;
import org.jgrapht.graph.DefaultEdge;
import org.jgrapht.graph.Pseudograph;

/**
 * Relationships lead from every table to every other; tables tied to nothing have a check of
 * theirs.
 */
final class NoPath implements WholeCheck {
  private static final int SHOWN = 4;

  /** More are told together. */
  private static final int MOST = 5;

  private static final TableFinding FINDING =
      new TableFinding("no-path", Severity.ADVICE, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    var graph = new Pseudograph<TableId, DefaultEdge>(DefaultEdge.class);
    for (Relationship r : design.design().relationships()) {
      graph.addVertex(r.child());
      graph.addVertex(r.parent());
      graph.addEdge(r.child(), r.parent());
    }
    List<Set<TableId>> groups =
        new ConnectivityInspector<>(graph)
            .connectedSets().stream()
                .filter(group -> group.size() > 1)
                .sorted(Comparator.comparing((Set<TableId> group) -> group.size()).reversed())
                .toList();
    int others = groups.size() - 1;
    if (others > MOST) {
      report(design, groups.get(1), ", and so it is with " + (others - 1) + " more groups", found);
    } else {
      groups.stream().skip(1).forEach(group -> report(design, group, "", found));
    }
  }

  private static void report(
      CheckedDesign design, Set<TableId> group, String more, Consumer<Finding> found) {
    List<Table> tables =
        design.design().tables().stream().filter(table -> group.contains(table.id())).toList();
    String words =
        tables.size() <= SHOWN
            ? WordList.and(tables.stream().map(Table::label).toList())
            : tables.getFirst().label()
                + " and "
                + Counts.of(tables.size() - 1, "table", "tables")
                + " around it";
    found.accept(
        FINDING.about(
            tables.getFirst(),
            "No relationship leads from " + words + " to the other tables" + more + ".",
            "Nothing can be asked across both; a relationship is missing, or these are two designs."));
  }
}
