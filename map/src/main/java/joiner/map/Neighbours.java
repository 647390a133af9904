package joiner.map;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.TableId;

/** What so many relationships lead to from a table. */
public final class Neighbours {
  private Neighbours() {}

  /** The table itself and all that are reached by so many steps, either way. */
  public static Set<TableId> of(Design design, TableId table, int steps) {
    Set<TableId> reached = new HashSet<>(Set.of(table));
    for (int step = 0; step < steps; step++) {
      Set<TableId> before = Set.copyOf(reached);
      for (Relationship r : design.relationships()) {
        if (before.contains(r.child()) || before.contains(r.parent())) {
          reached.addAll(List.of(r.child(), r.parent()));
        }
      }
    }
    return reached;
  }
}
