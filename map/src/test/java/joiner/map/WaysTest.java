package joiner.map;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Set;
import java.util.stream.Collectors;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;
import org.jgrapht.GraphPath;
import org.jgrapht.alg.shortestpath.AllDirectedPaths;
import org.jgrapht.alg.shortestpath.BFSShortestPath;
import org.jgrapht.graph.DefaultDirectedGraph;
import org.jgrapht.graph.DefaultEdge;
import org.junit.jupiter.api.Test;

class WaysTest {
  private static Set<String> between(String one, String other) {
    Design demo = Pottery.demo().design();
    return Ways.between(demo, new TableId(one), new TableId(other)).stream()
        .map(TableId::value)
        .collect(Collectors.toSet());
  }

  @Test
  void allShortestWaysAreShown() {
    assertThat(between("locker", "piece")).containsExactlyInAnyOrder("locker", "member", "piece");
    assertThat(between("kiln", "glaze"))
        .containsExactlyInAnyOrder("kiln", "firing", "cone", "glaze");
    assertThat(between("kiln", "kiln")).containsExactly("kiln");
  }

  /** All paths of the least length, as JGraphT lists them. */
  @Test
  void theyAreThoseThatAGraphLibraryFinds() {
    for (long seed : Tries.of(40).toArray()) {
      Design design = RandomLinks.draft(seed, 2).design();
      var graph = new DefaultDirectedGraph<TableId, DefaultEdge>(DefaultEdge.class);
      design.tables().forEach(table -> graph.addVertex(table.id()));
      design.relationships().stream()
          .filter(r -> !r.isSelfReference())
          .forEach(
              r -> {
                graph.addEdge(r.child(), r.parent());
                graph.addEdge(r.parent(), r.child());
              });
      for (Table one : design.tables()) {
        for (Table other : design.tables()) {
          GraphPath<TableId, DefaultEdge> shortest =
              BFSShortestPath.findPathBetween(graph, one.id(), other.id());
          Set<TableId> expected =
              shortest == null
                  ? Set.of()
                  : new AllDirectedPaths<>(graph)
                      .getAllPaths(one.id(), other.id(), true, shortest.getLength()).stream()
                          .flatMap(path -> path.getVertexList().stream())
                          .collect(Collectors.toSet());
          assertThat(Ways.between(design, one.id(), other.id()))
              .as("%s to %s, seed %d", one.name(), other.name(), seed)
              .isEqualTo(expected);
        }
      }
    }
  }
}
