package joiner.ddl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.Set;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Tables with parents before children, otherwise in the design's order (Arthur B. Kahn,
 * "Topological sorting of large networks", 1962): O((t + r) log t). Where a circle stands in the
 * way, the first table of the design that is left goes next, and the relationships it is too early
 * for are closed afterwards.
 *
 * @param tables all tables
 * @param late relationships whose parent comes after their child
 */
public record TableOrder(List<Table> tables, Set<RelationshipId> late) {

  /** The tables of a design in that order. */
  public static TableOrder of(Design design) {
    Map<TableId, Integer> place = new HashMap<>();
    Map<TableId, Integer> waiting = new HashMap<>();
    Map<TableId, List<TableId>> children = new HashMap<>();
    design.tables().forEach(table -> place.put(table.id(), place.size()));
    for (Relationship r : design.relationships()) {
      if (!r.isSelfReference()) {
        waiting.merge(r.child(), 1, Integer::sum);
        children.computeIfAbsent(r.parent(), id -> new ArrayList<>()).add(r.child());
      }
    }
    var ready = new PriorityQueue<TableId>((a, b) -> Integer.compare(place.get(a), place.get(b)));
    var left = new LinkedHashSet<TableId>(design.tables().stream().map(Table::id).toList());
    left.stream().filter(id -> !waiting.containsKey(id)).forEach(ready::add);
    var ordered = new ArrayList<Table>();
    while (!left.isEmpty()) {
      TableId next = ready.isEmpty() ? left.getFirst() : ready.poll();
      if (left.remove(next)) {
        ordered.add(design.table(next));
        for (TableId child : children.getOrDefault(next, List.of())) {
          if (waiting.merge(child, -1, Integer::sum) == 0) {
            ready.add(child);
          }
        }
      }
    }
    return new TableOrder(ordered, late(design, ordered));
  }

  private static Set<RelationshipId> late(Design design, List<Table> ordered) {
    Map<TableId, Integer> position = new HashMap<>();
    ordered.forEach(table -> position.put(table.id(), position.size()));
    var late = new HashSet<RelationshipId>();
    for (Relationship r : design.relationships()) {
      if (position.get(r.parent()) > position.get(r.child())) {
        late.add(r.id());
      }
    }
    return late;
  }
}
