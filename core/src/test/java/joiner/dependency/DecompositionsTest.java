package joiner.dependency;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.Tries;
import org.junit.jupiter.api.Test;

/** Decompositions judged by small tables and by definition, not by the code that makes them. */
class DecompositionsTest {
  private static final int WIDTH = 5;

  private static AttributeSet bits(int chosen) {
    return AttributeSet.of(IntStream.range(0, WIDTH).filter(i -> (chosen >> i & 1) == 1).toArray());
  }

  private static List<String> names(int count) {
    return IntStream.range(0, count).mapToObj(i -> "a" + i).toList();
  }

  private static AttributeSet some(Random random) {
    return bits(random.nextInt(1 << WIDTH));
  }

  private static Scheme scheme(Random random, int most) {
    var dependencies = new ArrayList<Dependency>();
    for (int i = random.nextInt(most + 1); i > 0; i--) {
      AttributeSet to = some(random);
      if (!to.isEmpty()) {
        dependencies.add(new Dependency(some(random), to));
      }
    }
    return new Scheme(names(WIDTH), dependencies);
  }

  private static FourthNormalForm fourth(Random random) {
    var multivalued = new ArrayList<Multivalued>();
    for (int i = random.nextInt(4); i > 0; i--) {
      multivalued.add(new Multivalued(some(random), some(random)));
    }
    return new FourthNormalForm(scheme(random, 3), multivalued);
  }

  /** By definition: every nontrivial X ->> Y within a part has a key of the part on its left. */
  @Test
  void everyPartIsInFourthNormalFormByDefinition() {
    Tries.of(300)
        .forEach(
            seed -> {
              FourthNormalForm fourth = fourth(new Random(seed));
              Decomposition decomposition = fourth.decomposition();
              assertThat(decomposition.complete()).isTrue();
              for (AttributeSet part : decomposition.parts()) {
                for (int i = 0; i < 1 << WIDTH; i++) {
                  AttributeSet from = bits(i);
                  if (part.containsAll(from) && !fourth.closure(from).containsAll(part)) {
                    List<AttributeSet> within =
                        fourth.basis(from).stream()
                            .map(block -> block.intersection(part))
                            .filter(block -> !block.isEmpty())
                            .toList();
                    assertThat(within).as("seed %s, part %s, %s", seed, part, from).hasSize(1);
                  }
                }
              }
              AttributeSet covered =
                  decomposition.parts().stream().reduce(AttributeSet.EMPTY, AttributeSet::union);
              assertThat(covered).isEqualTo(AttributeSet.first(WIDTH));
            });
  }

  @Test
  void aBasisIsADivisionOfTheRestInOrder() {
    Tries.of(300)
        .forEach(
            seed -> {
              var random = new Random(seed);
              FourthNormalForm fourth = fourth(random);
              AttributeSet from = some(random);
              List<AttributeSet> blocks = fourth.basis(from);
              AttributeSet union = AttributeSet.EMPTY;
              for (AttributeSet block : blocks) {
                assertThat(block.isEmpty()).isFalse();
                assertThat(union.intersection(block).isEmpty()).isTrue();
                union = union.union(block);
              }
              assertThat(union).isEqualTo(AttributeSet.first(WIDTH).minus(from));
              assertThat(blocks.stream().map(b -> b.places().findFirst().orElseThrow()).toList())
                  .isSorted();
            });
  }

  /** A table that keeps the dependencies: rows that break one are left out. */
  private static List<int[]> table(Scheme scheme, Random random) {
    var rows = new ArrayList<int[]>();
    for (int i = 0; i < 40; i++) {
      int[] row = random.ints(WIDTH, 0, 3).toArray();
      boolean fits =
          rows.stream()
              .allMatch(
                  other ->
                      scheme.dependencies().stream()
                          .allMatch(
                              d -> !agree(row, other, d.from()) || agree(row, other, d.to())));
      if (fits) {
        rows.add(row);
      }
    }
    return rows;
  }

  private static boolean agree(int[] one, int[] other, AttributeSet in) {
    return in.places().allMatch(place -> one[place] == other[place]);
  }

  /** The natural join of the projections, as maps, by nested loops. */
  private static Set<Map<Integer, Integer>> joined(List<int[]> rows, List<AttributeSet> parts) {
    Set<Map<Integer, Integer>> joined = Set.of(Map.of());
    for (AttributeSet part : parts) {
      Set<Map<Integer, Integer>> projected =
          rows.stream()
              .map(row -> part.places().boxed().collect(Collectors.toMap(p -> p, p -> row[p])))
              .collect(Collectors.toSet());
      var next = new HashSet<Map<Integer, Integer>>();
      for (Map<Integer, Integer> left : joined) {
        for (Map<Integer, Integer> right : projected) {
          if (right.entrySet().stream()
              .allMatch(e -> left.getOrDefault(e.getKey(), e.getValue()).equals(e.getValue()))) {
            var both = new HashMap<>(left);
            both.putAll(right);
            next.add(both);
          }
        }
      }
      joined = next;
    }
    return joined;
  }

  /**
   * What is called lossless joins back on every table that keeps the dependencies; and a split that
   * loses rows on one such table is never called lossless.
   */
  @Test
  void losslessMeansThatTablesJoinBack() {
    int[] verdicts = new int[2];
    Tries.of(300)
        .forEach(
            seed -> {
              var random = new Random(seed);
              Scheme scheme = scheme(random, 4);
              var parts = new ArrayList<AttributeSet>();
              AttributeSet union = AttributeSet.EMPTY;
              while (!union.equals(AttributeSet.first(WIDTH))) {
                parts.add(some(random));
                union = union.union(parts.getLast());
              }
              boolean called = scheme.isLossless(parts);
              verdicts[called ? 1 : 0]++;
              for (int i = 0; i < 5; i++) {
                List<int[]> rows = table(scheme, random);
                long different = rows.stream().map(java.util.Arrays::toString).distinct().count();
                if (called) {
                  assertThat(joined(rows, parts)).as("seed " + seed).hasSize((int) different);
                }
              }
            });
    assertThat(verdicts[0]).isPositive();
    assertThat(verdicts[1]).isPositive();
  }

  /** The smallest lossy split, and one that only the chase sees (from memory). */
  @Test
  void lossySplitsAreCalledSo() {
    var bare = new Scheme(names(3), List.of());
    List<AttributeSet> parts = List.of(AttributeSet.of(0, 1), AttributeSet.of(1, 2));
    assertThat(bare.isLossless(parts)).isFalse();
    var keyed =
        new Scheme(names(3), List.of(new Dependency(AttributeSet.of(0), AttributeSet.of(1, 2))));
    assertThat(keyed.isLossless(List.of(AttributeSet.of(0, 1), AttributeSet.of(0, 2)))).isTrue();
    assertThat(keyed.isLossless(parts)).as("a key, but nothing to look up by").isFalse();
    // A->C, B->C, and C->D, DE->C, CE->A on AD, AB, BE, CDE, AE: Ullman's tableau.
    Scheme ullman = SchemeText.read("A,B,C,D,E", "A->C; B->C; C->D; D,E->C; C,E->A");
    assertThat(
            ullman.isLossless(
                List.of(
                    AttributeSet.of(0, 3),
                    AttributeSet.of(0, 1),
                    AttributeSet.of(1, 4),
                    AttributeSet.of(2, 3, 4),
                    AttributeSet.of(0, 4))))
        .isTrue();
  }

  /** By definition: the dependencies that hold within the parts imply it. */
  @Test
  void keptMeansImpliedByWhatHoldsWithinTheParts() {
    Tries.of(300)
        .forEach(
            seed -> {
              var random = new Random(seed);
              Scheme scheme = scheme(random, 4);
              List<AttributeSet> parts = List.of(some(random), some(random), some(random));
              var within = new ArrayList<Dependency>();
              for (AttributeSet part : parts) {
                for (int i = 0; i < 1 << WIDTH; i++) {
                  if (part.containsAll(bits(i))) {
                    within.add(new Dependency(bits(i), scheme.closure(bits(i)).intersection(part)));
                  }
                }
              }
              var local = new Scheme(names(WIDTH), within);
              for (Dependency dependency : scheme.dependencies()) {
                assertThat(scheme.keeps(parts, dependency))
                    .as("seed " + seed)
                    .isEqualTo(local.implies(dependency));
              }
            });
  }

  @Test
  void whatIsTooWideToBeSearchedInFullIsSaidToBeIncomplete() {
    var sixteen = new Scheme(names(16), List.of());
    assertThat(sixteen.boyceCodd().complete()).isTrue();
    assertThat(new Scheme(names(17), List.of()).boyceCodd().complete()).isFalse();
    assertThat(new FourthNormalForm(new Scheme(names(12), List.of()), List.of()).decomposition())
        .returns(true, Decomposition::complete);
    assertThat(new FourthNormalForm(new Scheme(names(13), List.of()), List.of()).decomposition())
        .returns(false, Decomposition::complete);
  }

  @Test
  void theKeysOfAWidePartComeFromTheDependenciesWithinIt() {
    var scheme =
        new Scheme(
            names(20),
            List.of(
                new Dependency(AttributeSet.of(0), AttributeSet.first(20)),
                new Dependency(AttributeSet.of(1, 2), AttributeSet.of(0)),
                new Dependency(AttributeSet.of(19), AttributeSet.of(0))));
    AttributeSet part = AttributeSet.first(17);
    assertThat(scheme.keysOf(part, () -> false))
        .containsExactlyInAnyOrder(AttributeSet.of(0), AttributeSet.of(1, 2));
    assertThat(scheme.keysOf(AttributeSet.of(1, 2, 3), () -> false))
        .containsExactly(AttributeSet.of(1, 2));
  }

  @Test
  void violationsAreSaidInWords() {
    Scheme constant = SchemeText.read("A,B", "->A");
    assertThat(constant.violations(constant.candidateKeys(() -> false)))
        .extracting(Violation::why)
        .containsExactly("nothing at all is only part of a key and decides A.");
    Scheme zip = SchemeText.read("C,S,Z", "C,S->Z; Z->C");
    assertThat(zip.violations(zip.candidateKeys(() -> false)))
        .extracting(Violation::why)
        .containsExactly("Z is no key and decides C.");
    Scheme chain = SchemeText.read("A,B,C", "A->B; B->C");
    assertThat(chain.violations(chain.candidateKeys(() -> false)))
        .extracting(Violation::why)
        .containsExactly("B is no key and decides C, which is part of no key.");
    Scheme three = SchemeText.read("A,B,C", "");
    assertThat(new FourthNormalForm(three, SchemeText.multivalued(three, "A->>B")).violations())
        .extracting(Violation::why)
        .containsExactly("A is no key, and its values of B have nothing to do with C.");
    assertThat(new FourthNormalForm(three, SchemeText.multivalued(three, "->>B")).violations())
        .extracting(Violation::why)
        .containsExactly(
            "nothing at all is no key, and its values of B have nothing to do with A, C.");
  }

  @Test
  void triviallyDecidedIsWhatIsKnownAlready() {
    assertThat(new Dependency(AttributeSet.of(0, 1), AttributeSet.of(1)).isTrivial()).isTrue();
    assertThat(new Dependency(AttributeSet.of(0), AttributeSet.of(1)).isTrivial()).isFalse();
    assertThat(AttributeSet.of(1, 3)).hasToString("{1, 3}");
    assertThat(AttributeSet.of(1, 3).hashCode()).isEqualTo(AttributeSet.of(3, 1).hashCode());
    assertThat(AttributeSet.of(1, 3).hashCode()).isNotEqualTo(AttributeSet.of(2).hashCode());
  }
}
