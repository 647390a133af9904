package joiner.joining;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.Set;
import joiner.model.Design;
import joiner.model.Multiplicity;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import org.jspecify.annotations.Nullable;

/**
 * Finds how tables are joined: the way that means most, which is a short one. Rows that merely
 * belong to the same row, such as two firings of one cone, are related less than rows that refer to
 * each other, so that going up and down again costs more. Shortest paths after Dijkstra ("A Note on
 * Two Problems in Connexion with Graphs", 1959).
 */
public final class JoinPaths {
  private static final int STEP = 10;
  private static final int SHARED_PARENT = 15;
  private static final int OPTIONAL = 1;
  private static final int MOST_OTHERS = 4;

  private final Design design;

  /** Ways between the tables of a design. */
  public JoinPaths(Design design) {
    this.design = design;
  }

  /** One join. */
  public record Step(TableId from, Relationship over, boolean down) {
    /** The table it leads to. */
    public TableId to() {
      return down ? over.child() : over.parent();
    }
  }

  private record State(TableId table, @Nullable Boolean cameDown) {}

  private record Reached(State state, int cost, int order, List<Step> way) {}

  /**
   * The best way to a table; empty where none leads there.
   *
   * @param from where it may begin; of equally good ways the one from the last of them
   * @param without relationships that are not to be used
   */
  public Optional<List<Step>> way(List<TableId> from, TableId to, Set<RelationshipId> without) {
    var ahead =
        new PriorityQueue<Reached>(
            Comparator.comparingInt(Reached::cost).thenComparingInt(Reached::order));
    Map<State, Integer> best = new HashMap<>();
    int order = 0;
    for (TableId start : from.reversed()) {
      ahead.add(new Reached(new State(start, null), 0, order++, List.of()));
    }
    while (!ahead.isEmpty()) {
      Reached reached = ahead.poll();
      if (reached.state.table.equals(to)) {
        return Optional.of(reached.way);
      }
      if (best.putIfAbsent(reached.state, reached.cost) != null) {
        continue;
      }
      for (Step step : steps(reached.state.table)) {
        boolean back = from.contains(step.to());
        if (!back && !without.contains(step.over.id())) {
          var way = new ArrayList<>(reached.way);
          way.add(step);
          State next = new State(step.to(), step.down);
          ahead.add(new Reached(next, reached.cost + cost(reached.state, step), order++, way));
        }
      }
    }
    return Optional.empty();
  }

  private List<Step> steps(TableId table) {
    var steps = new ArrayList<Step>();
    for (Relationship r : design.childrenOf(table)) {
      steps.add(new Step(table, r, true));
    }
    for (Relationship r : design.parentsOf(table)) {
      steps.add(new Step(table, r, false));
    }
    steps.removeIf(step -> step.to().equals(table));
    return steps;
  }

  private int cost(State before, Step step) {
    boolean upAndDown = step.down && Boolean.FALSE.equals(before.cameDown);
    boolean required = Multiplicity.of(design, step.over).parentRequired();
    return STEP + (upAndDown ? SHARED_PARENT : 0) + (required ? 0 : OPTIONAL);
  }

  /**
   * Other ways to where a way leads, each over another relationship at its end or start; the
   * nearest first.
   */
  public List<List<Step>> others(List<TableId> from, List<Step> way) {
    var found = new ArrayList<List<Step>>();
    Set<RelationshipId> without = new HashSet<>();
    way.forEach(step -> without.add(step.over.id()));
    TableId to = way.getLast().to();
    while (found.size() < MOST_OTHERS) {
      Optional<List<Step>> other = way(from, to, without);
      if (other.isEmpty()) {
        return found;
      }
      found.add(other.get());
      without.add(other.get().getLast().over.id());
    }
    return found;
  }
}
