package joiner.map;

import java.util.ArrayDeque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.model.Design;
import joiner.model.TableId;

/** What leads from one table to another. */
public final class Ways {
  private Ways() {}

  /**
   * The tables on all shortest ways over relationships, either way, the two themselves among them;
   * empty where none leads there. Linear in the design.
   */
  public static Set<TableId> between(Design design, TableId one, TableId other) {
    Map<TableId, List<TableId>> beside =
        design.relationships().stream()
            .flatMap(r -> Stream.of(List.of(r.child(), r.parent()), List.of(r.parent(), r.child())))
            .collect(
                Collectors.groupingBy(
                    List::getFirst, Collectors.mapping(List::getLast, Collectors.toList())));
    Map<TableId, Integer> fromOne = steps(beside, one);
    Map<TableId, Integer> fromOther = steps(beside, other);
    Integer length = fromOne.get(other);
    Set<TableId> on = new HashSet<>();
    if (length != null) {
      fromOne.forEach(
          (table, steps) -> {
            Integer rest = fromOther.get(table);
            if (rest != null && steps + rest == length) {
              on.add(table);
            }
          });
    }
    return on;
  }

  private static Map<TableId, Integer> steps(Map<TableId, List<TableId>> beside, TableId start) {
    Map<TableId, Integer> steps = new HashMap<>(Map.of(start, 0));
    var next = new ArrayDeque<TableId>(List.of(start));
    while (!next.isEmpty()) {
      TableId at = next.poll();
      for (TableId there : beside.getOrDefault(at, List.of())) {
        if (steps.putIfAbsent(there, steps.get(at) + 1) == null) {
          next.add(there);
        }
      }
    }
    return steps;
  }
}
