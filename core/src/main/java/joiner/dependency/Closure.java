package joiner.dependency;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;

/**
 * Everything a set of attributes determines, by counting down the determinants (Catriel Beeri,
 * Philip Bernstein, "Computational problems related to the design of normal form relational
 * schemas", 1979). Linear in the total length of the dependencies, for each question.
 */
public final class Closure {
  private final List<Dependency> dependencies;
  private final List<List<Integer>> waitingFor = new ArrayList<>();

  /** Prepares for questions about those dependencies over {@code attributes} attributes. */
  public Closure(int attributes, List<Dependency> dependencies) {
    this.dependencies = List.copyOf(dependencies);
    for (int i = 0; i < attributes; i++) {
      waitingFor.add(new ArrayList<>());
    }
    for (int d = 0; d < dependencies.size(); d++) {
      int number = d;
      dependencies.get(d).from().places().forEach(place -> waitingFor.get(place).add(number));
    }
  }

  /** All attributes determined by those. */
  public AttributeSet of(AttributeSet start) {
    int[] missing = dependencies.stream().mapToInt(d -> d.from().size()).toArray();
    var known = new java.util.BitSet();
    var next = new ArrayDeque<Integer>();
    start.places().forEach(place -> reach(place, known, next));
    for (int d = 0; d < missing.length; d++) {
      if (missing[d] == 0) {
        dependencies.get(d).to().places().forEach(place -> reach(place, known, next));
      }
    }
    while (!next.isEmpty()) {
      for (int d : waitingFor.get(next.poll())) {
        if (--missing[d] == 0) {
          dependencies.get(d).to().places().forEach(place -> reach(place, known, next));
        }
      }
    }
    return AttributeSet.of(known.stream().toArray());
  }

  private static void reach(int place, java.util.BitSet known, ArrayDeque<Integer> next) {
    if (!known.get(place)) {
      known.set(place);
      next.add(place);
    }
  }

  /** Whether the dependency follows from these. */
  public boolean implies(Dependency dependency) {
    return of(dependency.from()).containsAll(dependency.to());
  }
}
