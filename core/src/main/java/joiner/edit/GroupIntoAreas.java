package joiner.edit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import org.jgrapht.alg.clustering.LabelPropagationClustering;
import org.jgrapht.graph.DefaultEdge;
import org.jgrapht.graph.SimpleGraph;

/**
 * Puts tables that are in no area together with those that most relationships tie them to (label
 * propagation: Raghavan, Albert, Kumara, "Near linear time algorithm to detect community structures
 * in large-scale networks", 2007). Each new area is called by the table that most others of it
 * refer to. Tables that are tied to nothing stay as they are. The same design gives the same areas.
 */
public record GroupIntoAreas() implements Edit {
  private static final int MOST_ROUNDS = 100;

  /** Beyond so many relationships a table belongs to all, and holds none together. */
  private static final int MANY_TIES = 6;

  @Override
  public String name() {
    return "group tables into areas";
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    var areas = new ArrayList<>(design.areas());
    Map<TableId, List<TableId>> children =
        design.relationships().stream()
            .filter(r -> !r.isSelfReference())
            .collect(
                Collectors.groupingBy(
                    Relationship::parent,
                    Collectors.mapping(Relationship::child, Collectors.toList())));
    Map<TableId, AreaId> area = new HashMap<>();
    for (List<Table> group : groups(design)) {
      Area made = Area.named(areas, free(areas, leading(children, group).label()));
      areas.add(made);
      group.forEach(table -> area.put(table.id(), made.id()));
    }
    if (area.isEmpty()) {
      throw new EditRefusedException(
          "Every table that is tied to another is in an area already; take some out to group them"
              + " anew.");
    }
    return draft.withDesign(
        design
            .withAreas(areas)
            .withTables(
                design.tables().stream()
                    .map(
                        table ->
                            area.containsKey(table.id())
                                ? table.withArea(Optional.of(area.get(table.id())))
                                : table)
                    .toList()));
  }

  private static String free(List<Area> areas, String wanted) {
    Set<String> taken = areas.stream().map(Area::name).collect(Collectors.toSet());
    String name = wanted;
    for (int number = 2; taken.contains(name); number++) {
      name = wanted + " " + number;
    }
    return name;
  }

  /** Groups of two tables at least, the largest first. */
  private static List<List<Table>> groups(Design design) {
    var graph = new SimpleGraph<TableId, DefaultEdge>(DefaultEdge.class);
    design.tables().stream()
        .filter(table -> table.area().isEmpty())
        .forEach(table -> graph.addVertex(table.id()));
    Map<TableId, Long> referring =
        design.relationships().stream()
            .collect(Collectors.groupingBy(Relationship::parent, Collectors.counting()));
    Map<TableId, Long> refers =
        design.relationships().stream()
            .collect(Collectors.groupingBy(Relationship::child, Collectors.counting()));
    for (Relationship r : design.relationships()) {
      boolean both = graph.containsVertex(r.child()) && graph.containsVertex(r.parent());
      // Where a table refers to nothing else, only this tells where it belongs.
      boolean holds = referring.get(r.parent()) <= MANY_TIES || refers.get(r.child()) == 1;
      if (both && holds && !r.isSelfReference()) {
        graph.addEdge(r.child(), r.parent());
      }
    }
    Map<TableId, Table> tables =
        design.tables().stream().collect(Collectors.toMap(Table::id, Function.identity()));
    return new LabelPropagationClustering<>(graph, MOST_ROUNDS, new Random(1))
        .getClustering().getClusters().stream()
            .map(ids -> ids.stream().map(tables::get).toList())
            .filter(group -> group.size() > 1)
            .sorted(Comparator.comparing((List<Table> group) -> group.size()).reversed())
            .toList();
  }

  /** The table that most others of its group refer to. */
  private static Table leading(Map<TableId, List<TableId>> children, List<Table> group) {
    Set<TableId> own = group.stream().map(Table::id).collect(Collectors.toSet());
    return group.stream()
        .max(
            Comparator.comparing(
                table ->
                    children.getOrDefault(table.id(), List.of()).stream()
                        .filter(own::contains)
                        .count()))
        .orElseThrow();
  }
}
