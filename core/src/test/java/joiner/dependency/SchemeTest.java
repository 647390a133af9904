package joiner.dependency;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SchemeTest {
  private static String words(Scheme scheme, List<AttributeSet> sets) {
    return sets.stream()
        .map(set -> String.join("", scheme.names(set)))
        .sorted()
        .collect(Collectors.joining(" "));
  }

  /**
   * Worked examples. Rows 1 to 6 are of the kind found in Ullman, "Principles of Database and
   * Knowledge-Base Systems" (1988), Elmasri and Navathe, "Fundamentals of Database Systems", and
   * Date, "An Introduction to Database Systems": all from memory, with letters for their names.
   */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "C,S,Z | C,S->Z; Z->C | CS SZ | 3NF",
        "A,B,C | A->B; B->C | A | 2NF",
        "A,B,C,D | A,B->C; A->D | AB | 1NF",
        "A,B,C,D,E | A->B,C; C,D->E; B->D; E->A | A BC CD E | 3NF",
        "S,J,T | S,J->T; T->J | SJ ST | 3NF",
        "A,B,C,D,E,F | A,B->C; C->D,E; E->F | AB | 2NF",
        "A,B | A->B; B->A | A B | BCNF",
        "A,B,C | '' | ABC | BCNF",
        "A,B | ->A | B | 1NF",
        "A,B,C,D | A->B; B->A; C->D; D->C | AC AD BC BD | 3NF"
      })
  void keysAndNormalFormAreTheExamples(
      String attributes, String dependencies, String keys, String form) {
    Scheme scheme = SchemeText.read(attributes, dependencies.equals("''") ? "" : dependencies);
    CandidateKeys found = scheme.candidateKeys(() -> false);
    assertThat(words(scheme, found.keys())).isEqualTo(keys);
    assertThat(scheme.normalForm(scheme.violations(found)).words()).isEqualTo(form);
  }

  @Test
  void cityStreetAndZipCannotReachBoyceCoddWithoutLosingADependency() {
    Scheme scheme = SchemeText.read("C,S,Z", "C,S->Z; Z->C");
    Decomposition parts = scheme.boyceCodd();
    assertThat(words(scheme, parts.parts())).isEqualTo("CZ SZ");
    assertThat(parts.lossless()).isTrue();
    assertThat(parts.lost())
        .containsExactly(new Dependency(AttributeSet.of(0, 1), AttributeSet.of(2)));
    assertThat(scheme.synthesis(scheme.candidateKeys(() -> false)).lost()).isEmpty();
  }

  /** Aho, Beeri, Ullman (1979), the tableau test, on the smallest lossy split (from memory). */
  @Test
  void aSplitWithoutACommonKeyIsLossy() {
    var parts = List.of(AttributeSet.of(0, 1), AttributeSet.of(1, 2));
    assertThat(Chase.isLossless(3, parts, List.of())).isFalse();
    assertThat(
            Chase.isLossless(
                3, parts, List.of(new Dependency(AttributeSet.of(1), AttributeSet.of(2)))))
        .isTrue();
  }

  @Test
  void anUnknownNameOrAMissingArrowIsTold() {
    assertThatThrownBy(() -> SchemeText.read("A,B", "A->X"))
        .hasMessageContaining("“X”")
        .hasMessageContaining("A, B");
    assertThatThrownBy(() -> SchemeText.read("A,B", "A,B")).hasMessageContaining("A,B->C");
  }

  @Test
  void manyAttributesAndDependenciesAreNoTrouble() {
    var random = new java.util.Random(7);
    var dependencies = new ArrayList<Dependency>();
    for (int i = 0; i < 2000; i++) {
      int from = random.nextInt(199);
      dependencies.add(
          new Dependency(AttributeSet.of(from, random.nextInt(200)), AttributeSet.of(from + 1)));
    }
    var names = IntStream.range(0, 200).mapToObj(i -> "a" + i).toList();
    var scheme = new Scheme(names, dependencies);
    assertThat(scheme.closure(AttributeSet.first(200))).isEqualTo(AttributeSet.first(200));
    List<Dependency> cover = scheme.minimalCover();
    var covered = new Scheme(names, cover);
    assertThat(dependencies).allMatch(covered::implies);
    AttributeSet key = scheme.candidateKeys(() -> true).keys().getFirst();
    Decomposition third = scheme.synthesis(new CandidateKeys(List.of(key), false));
    assertThat(third.lossless()).isTrue();
    assertThat(third.lost()).isEmpty();
    int[] asked = {0};
    assertThat(scheme.candidateKeys(() -> ++asked[0] > 5).complete()).isFalse();
  }

  /** Armstrong's axioms (1974): reflexivity, augmentation, transitivity. */
  @Property(tries = 300)
  void closuresObeyArmstrongsAxioms(@ForAll("schemes") Scheme scheme) {
    for (int i = 0; i < 1 << 5; i++) {
      AttributeSet set = bits(i);
      AttributeSet closed = scheme.closure(set);
      assertThat(closed.containsAll(set)).isTrue();
      assertThat(scheme.closure(closed)).isEqualTo(closed);
      assertThat(scheme.closure(set.with(4)).containsAll(closed)).isTrue();
    }
  }

  @Property(tries = 300)
  void keysAreAllMinimalKeysAndNoOther(@ForAll("schemes") Scheme scheme) {
    AttributeSet all = AttributeSet.first(5);
    List<AttributeSet> brute =
        IntStream.range(0, 1 << 5)
            .mapToObj(SchemeTest::bits)
            .filter(set -> scheme.closure(set).equals(all))
            .filter(
                set ->
                    set.places().noneMatch(place -> scheme.closure(set.without(place)).equals(all)))
            .sorted()
            .toList();
    assertThat(scheme.candidateKeys(() -> false).keys()).isEqualTo(brute);
    assertThat(scheme.keysOf(all, () -> false)).isEqualTo(brute);
  }

  @Property(tries = 300)
  void aMinimalCoverSaysTheSameAndNothingCanBeLeftOut(@ForAll("schemes") Scheme scheme) {
    List<Dependency> cover = scheme.minimalCover();
    var covered = new Scheme(scheme.attributes(), cover);
    assertThat(scheme.dependencies()).allMatch(covered::implies);
    assertThat(cover)
        .allMatch(scheme::implies)
        .allMatch(d -> d.from().intersection(d.to()).isEmpty());
    for (Dependency dependency : cover) {
      var rest = new ArrayList<>(cover);
      rest.remove(dependency);
      assertThat(new Scheme(scheme.attributes(), rest).implies(dependency)).isFalse();
    }
  }

  @Property(tries = 300)
  void everyDecompositionIsLosslessAndInItsForm(@ForAll("schemes") Scheme scheme) {
    Decomposition third = scheme.synthesis(scheme.candidateKeys(() -> false));
    assertThat(third.lossless()).isTrue();
    assertThat(third.lost()).isEmpty();
    Decomposition boyceCodd = scheme.boyceCodd();
    assertThat(boyceCodd.lossless()).isTrue();
    for (AttributeSet part : boyceCodd.parts()) {
      for (int i = 0; i < 1 << 5; i++) {
        AttributeSet decided = scheme.closure(bits(i)).intersection(part);
        assertThat(!part.containsAll(bits(i)) || decided.equals(bits(i)) || decided.equals(part))
            .isTrue();
      }
    }
  }

  private static AttributeSet bits(int chosen) {
    return AttributeSet.of(IntStream.range(0, 5).filter(i -> (chosen >> i & 1) == 1).toArray());
  }

  @Provide
  Arbitrary<Scheme> schemes() {
    Arbitrary<AttributeSet> sets = Arbitraries.integers().between(0, 31).map(SchemeTest::bits);
    Arbitrary<Dependency> dependency =
        sets.flatMap(from -> sets.filter(to -> !to.isEmpty()).map(to -> new Dependency(from, to)));
    return dependency
        .list()
        .ofMaxSize(6)
        .map(list -> new Scheme(List.of("A", "B", "C", "D", "E"), list));
  }
}
