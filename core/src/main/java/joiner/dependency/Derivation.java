package joiner.dependency;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Why a dependency follows from others: which of them to use, one after the other. Each step uses a
 * given dependency whose left side is known by then (Armstrong's axioms: augmentation and
 * transitivity), and none can be left out (William Armstrong, "Dependency structures of data base
 * relationships", 1974).
 *
 * @param goal what is derived
 * @param steps given dependencies in the order of their use; empty: the goal is trivial
 */
public record Derivation(Dependency goal, List<Dependency> steps) {
  public Derivation {
    steps = List.copyOf(steps);
  }

  /** A derivation from those dependencies; empty if the goal does not follow. */
  static Optional<Derivation> of(Dependency goal, List<Dependency> given) {
    var used = new ArrayList<Dependency>();
    AttributeSet known = goal.from();
    boolean changed = true;
    while (changed && !known.containsAll(goal.to())) {
      changed = false;
      for (Dependency dependency : given) {
        if (known.containsAll(dependency.from()) && !known.containsAll(dependency.to())) {
          used.add(dependency);
          known = known.union(dependency.to());
          changed = true;
        }
      }
    }
    return known.containsAll(goal.to())
        ? Optional.of(new Derivation(goal, needed(goal, used)))
        : Optional.empty();
  }

  /** The steps in order without those that the others do without. */
  private static List<Dependency> needed(Dependency goal, List<Dependency> used) {
    var needed = new ArrayList<>(used);
    for (int i = needed.size() - 1; i >= 0; i--) {
      Dependency step = needed.remove(i);
      if (!reaches(goal, needed)) {
        needed.add(i, step);
      }
    }
    return needed;
  }

  private static boolean reaches(Dependency goal, List<Dependency> steps) {
    AttributeSet known = goal.from();
    for (Dependency step : steps) {
      known = known.containsAll(step.from()) ? known.union(step.to()) : known;
    }
    return known.containsAll(goal.to());
  }
}
