package joiner.ddl;

import java.util.ArrayDeque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import joiner.engine.Dialect;
import joiner.model.Design;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/**
 * Finds the relationships whose actions an engine refuses because they would reach a table by a
 * second way or come back to where they began. The first ones of the design keep theirs.
 *
 * <p>Each relationship costs a walk over the tables that actions of its parent's ancestors reach;
 * in a design where everything hangs on one table by actions that is all of them.
 */
final class OneWay {
  private final Map<TableId, Set<TableId>> children = new HashMap<>();
  private final Map<TableId, Set<TableId>> parents = new HashMap<>();

  private OneWay() {}

  /** Relationships that have to do without their actions. */
  static Set<RelationshipId> stopped(Design design, Dialect dialect) {
    var ways = new OneWay();
    var stopped = new HashSet<RelationshipId>();
    for (Relationship r : design.relationships()) {
      boolean acts =
          acts(dialect.keptAs(Dialect.Event.DELETE, r.onDelete()))
              || acts(dialect.keptAs(Dialect.Event.UPDATE, r.onUpdate()));
      if (acts && !ways.takes(r.parent(), r.child())) {
        stopped.add(r.id());
      }
    }
    return stopped;
  }

  /** Whether an action changes or removes rows of the child. */
  static boolean acts(ReferentialAction action) {
    return switch (action) {
      case CASCADE, SET_NULL, SET_DEFAULT -> true;
      case NO_ACTION, RESTRICT -> false;
    };
  }

  /** Every ancestor of the parent then reaches every descendant of the child: it must not yet. */
  private boolean takes(TableId parent, TableId child) {
    Set<TableId> reached = reached(reached(List.of(parent), parents), children);
    Set<TableId> below = reached(List.of(child), children);
    if (below.stream().anyMatch(reached::contains)) {
      return false;
    }
    children.computeIfAbsent(parent, id -> new LinkedHashSet<>()).add(child);
    parents.computeIfAbsent(child, id -> new LinkedHashSet<>()).add(parent);
    return true;
  }

  private static Set<TableId> reached(Iterable<TableId> from, Map<TableId, Set<TableId>> along) {
    var reached = new LinkedHashSet<TableId>();
    var open = new ArrayDeque<TableId>();
    from.forEach(open::add);
    while (!open.isEmpty()) {
      TableId next = open.poll();
      if (reached.add(next)) {
        open.addAll(along.getOrDefault(next, Set.of()));
      }
    }
    return reached;
  }
}
