package joiner.audit;

import java.util.ArrayDeque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;

/** The tables of a design before those that refer to them, as far as there is such an order. */
final class ParentsFirst {
  private final Design design;
  private final Map<TableId, List<Relationship>> byChild;

  ParentsFirst(Design design, Map<TableId, List<Relationship>> byChild) {
    this.design = design;
    this.byChild = byChild;
  }

  /** All tables; linear in tables and relationships. */
  List<Table> tables() {
    Map<TableId, Table> ordered = new LinkedHashMap<>();
    var begun = new HashSet<TableId>();
    design.tables().forEach(table -> order(table, begun, ordered));
    return List.copyOf(ordered.values());
  }

  private void order(Table first, Set<TableId> begun, Map<TableId, Table> ordered) {
    var open = new ArrayDeque<Table>();
    open.push(first);
    while (!open.isEmpty()) {
      Table table = open.peek();
      if (begun.add(table.id())) {
        for (Relationship r : byChild.getOrDefault(table.id(), List.of())) {
          if (!begun.contains(r.parent())) {
            open.push(design.table(r.parent()));
          }
        }
      } else {
        open.pop();
        ordered.putIfAbsent(table.id(), table);
      }
    }
  }
}
