package joiner.dependency;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class DerivationTest {
  private static AttributeSet random(RandomGenerator random) {
    AttributeSet set = AttributeSet.EMPTY;
    for (int place = 0; place < 5; place++) {
      set = random.nextInt(3) == 0 ? set.with(place) : set;
    }
    return set;
  }

  private static Scheme scheme(RandomGenerator random) {
    var dependencies = new ArrayList<Dependency>();
    for (int i = random.nextInt(7); i > 0; i--) {
      dependencies.add(new Dependency(random(random), random(random).with(random.nextInt(5))));
    }
    return new Scheme(List.of("A", "B", "C", "D", "E"), dependencies);
  }

  /** Walks through the steps and leaves each out once, by nothing but the rules of inference. */
  @Property(tries = 2000)
  void aDerivationHoldsAndHasNoStepToSpare(@ForAll long seed) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    Scheme scheme = scheme(random);
    var goal = new Dependency(random(random), random(random));
    var derivation = scheme.derive(goal);
    assertThat(derivation.isPresent()).isEqualTo(scheme.implies(goal));
    derivation.ifPresent(
        d -> {
          assertThat(scheme.dependencies()).containsAll(d.steps());
          assertThat(reaches(goal, d.steps())).isTrue();
          for (int i = 0; i < d.steps().size(); i++) {
            var fewer = new ArrayList<>(d.steps());
            fewer.remove(i);
            assertThat(reaches(goal, fewer)).as("step %d of %s", i, d).isFalse();
          }
        });
  }

  private static boolean reaches(Dependency goal, List<Dependency> steps) {
    AttributeSet known = goal.from();
    for (Dependency step : steps) {
      if (known.containsAll(step.from())) {
        known = known.union(step.to());
      }
    }
    return known.containsAll(goal.to());
  }

  @Test
  void aTransitiveDependencyIsDerivedInOrder() {
    Scheme scheme = SchemeText.read("A,B,C,D", "C->D; B->C; A->B; A->C");
    Derivation derivation = scheme.derive(SchemeText.dependency(scheme, "A->D")).orElseThrow();
    assertThat(reaches(derivation.goal(), derivation.steps())).isTrue();
    assertThat(scheme.derive(SchemeText.dependency(scheme, "D->A"))).isEmpty();
  }

  /**
   * Multivalued dependencies against the chase with rows: two rows that agree on the left, to which
   * every given dependency adds and equates until nothing changes (Maier, Mendelzon, Sagiv,
   * "Testing implications of data dependencies", 1979, from memory).
   */
  @Property(tries = 1000)
  void theBasisDecidesWhatTheChaseDecides(@ForAll long seed) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    Scheme scheme = scheme(random);
    var multivalued = new ArrayList<Multivalued>();
    for (int i = random.nextInt(4); i > 0; i--) {
      multivalued.add(new Multivalued(random(random), random(random)));
    }
    var fourth = new FourthNormalForm(scheme, multivalued);
    AttributeSet from = random(random);
    AttributeSet to = random(random);
    Chased chased = chased(scheme, multivalued, from);
    assertThat(fourth.implies(new Multivalued(from, to)))
        .isEqualTo(chased.rows().stream().anyMatch(row -> mixes(row, to, chased.same())));
    assertThat(fourth.closure(from)).isEqualTo(chased.same());
  }

  /**
   * Where the chase ends.
   *
   * @param rows made of the first row's symbols, 0, and the second's, 1
   * @param same the columns in which both have become one
   */
  private record Chased(Set<List<Integer>> rows, AttributeSet same) {}

  /** A row with the first row's symbols in {@code to} and the second's elsewhere. */
  private static boolean mixes(List<Integer> row, AttributeSet to, AttributeSet same) {
    for (int place = 0; place < 5; place++) {
      if (!same.contains(place) && row.get(place) != (to.contains(place) ? 0 : 1)) {
        return false;
      }
    }
    return true;
  }

  private static Chased chased(Scheme scheme, List<Multivalued> multivalued, AttributeSet from) {
    AttributeSet same = from;
    Set<List<Integer>> rows = new HashSet<>();
    rows.add(List.of(0, 0, 0, 0, 0));
    rows.add(
        java.util.stream.IntStream.range(0, 5)
            .mapToObj(place -> from.contains(place) ? 0 : 1)
            .toList());
    boolean changed = true;
    while (changed) {
      changed = false;
      for (Dependency dependency : scheme.dependencies()) {
        for (int place : dependency.to().places().toArray()) {
          if (!same.contains(place) && differs(rows, dependency.from(), place)) {
            same = same.with(place);
            rows = renamed(rows, place);
            changed = true;
          }
        }
      }
      for (Multivalued dependency : multivalued) {
        changed |= swap(rows, dependency);
      }
    }
    return new Chased(rows, same);
  }

  private static Set<List<Integer>> renamed(Set<List<Integer>> rows, int place) {
    Set<List<Integer>> renamed = new HashSet<>();
    for (List<Integer> row : rows) {
      var copy = new ArrayList<>(row);
      copy.set(place, 0);
      renamed.add(copy);
    }
    return renamed;
  }

  private static boolean differs(Set<List<Integer>> rows, AttributeSet from, int place) {
    return rows.stream()
        .anyMatch(
            one ->
                rows.stream()
                    .anyMatch(
                        other ->
                            from.places().allMatch(p -> one.get(p).equals(other.get(p)))
                                && !one.get(place).equals(other.get(place))));
  }

  private static boolean swap(Set<List<Integer>> rows, Multivalued dependency) {
    Set<List<Integer>> added = new HashSet<>();
    for (List<Integer> one : rows) {
      for (List<Integer> other : rows) {
        if (dependency.from().places().allMatch(p -> one.get(p).equals(other.get(p)))) {
          var mixed = new ArrayList<>(other);
          dependency.to().places().forEach(p -> mixed.set(p, one.get(p)));
          added.add(mixed);
        }
      }
    }
    return rows.addAll(added);
  }
}
