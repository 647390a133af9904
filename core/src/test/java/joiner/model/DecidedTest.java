package joiner.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.Tries;
import org.junit.jupiter.api.Test;

/** What is known of a table, against definitions. */
class DecidedTest {
  private static final List<FieldId> FIELDS = ids("kiln", "fuel", "shelf", "cone", "peak");

  private static List<FieldId> ids(String... names) {
    return Stream.of(names).map(FieldId::new).toList();
  }

  private static KnownFact fact(List<FieldId> by, List<FieldId> decided) {
    return new KnownFact(by, decided, true);
  }

  private static Table firing(List<FieldId> key) {
    return Table.of("firing", "Firing", Noun.ofLabel("Firing"))
        .withFields(
            FIELDS.stream()
                .map(id -> Field.of(id.value(), id.value(), new FieldType.Text(20)))
                .toList())
        .withPrimaryKey(key);
  }

  private static List<FieldId> some(Random random, int most) {
    var some = new java.util.ArrayList<>(FIELDS);
    java.util.Collections.shuffle(some, random);
    return List.copyOf(some.subList(0, random.nextInt(1, most + 1)));
  }

  private static Table generated(Random random) {
    Table table = firing(some(random, 3));
    for (int i = 0; i < random.nextInt(5); i++) {
      List<FieldId> by = some(random, 2);
      List<FieldId> decided = some(random, 2).stream().filter(f -> !by.contains(f)).toList();
      if (!decided.isEmpty()) {
        table = table.withFact(new KnownFact(by, decided, random.nextInt(4) > 0));
      }
    }
    return table;
  }

  /**
   * By the meaning of a functional dependency: whatever two rows agree in, if it is some fields and
   * breaks nothing that is known, it is the others, too.
   */
  private static Set<FieldId> decidedBy(Table table, List<FieldId> by) {
    Set<FieldId> always = new HashSet<>(FIELDS);
    for (int mask = 0; mask < 1 << FIELDS.size(); mask++) {
      int bits = mask;
      Set<FieldId> agree =
          IntStream.range(0, FIELDS.size())
              .filter(i -> (bits >> i & 1) == 1)
              .mapToObj(FIELDS::get)
              .collect(Collectors.toSet());
      boolean keeps =
          table.facts().stream()
                  .filter(KnownFact::holds)
                  .allMatch(
                      f -> !agree.containsAll(f.determinant()) || agree.containsAll(f.dependents()))
              && (!agree.containsAll(table.primaryKey()) || agree.containsAll(FIELDS));
      if (keeps && agree.containsAll(by)) {
        always.retainAll(agree);
      }
    }
    return always;
  }

  @Test
  void whatFollowsIsWhatEveryPairOfRowsThatKeepsTheFactsShows() {
    int below = 0;
    for (long seed : Tries.of(1_000).toArray()) {
      var random = new Random(seed);
      Table table = generated(random);
      var decided = new Decided(table);
      List<FieldId> by = some(random, 3);
      Set<FieldId> expected = decidedBy(table, by);
      assertThat(decided.by(by)).as("seed %d", seed).isEqualTo(expected);
      assertThat(decided.identifies(by)).isEqualTo(expected.size() == FIELDS.size());
      List<KnownFact> wanted =
          table.facts().stream()
              .filter(f -> f.holds() && decidedBy(table, f.determinant()).size() < FIELDS.size())
              .toList();
      assertThat(decided.belowBoyceCodd()).isEqualTo(wanted);
      below += wanted.size();
    }
    assertThat(below).isGreaterThan(Tries.least(300));
  }

  @Test
  void ofOneThingOneThingIsKnown() {
    Table table = firing(ids("peak")).withFact(fact(ids("kiln"), ids("fuel")));
    table = table.withFact(fact(ids("kiln"), ids("shelf")));
    assertThat(table.facts()).containsExactly(fact(ids("kiln"), ids("shelf", "fuel")));
    var not = new KnownFact(ids("kiln"), ids("fuel"), false);
    table = table.withFact(not);
    assertThat(table.facts())
        .as("who says so last is right")
        .containsExactlyInAnyOrder(fact(ids("kiln"), ids("shelf")), not);
    assertThat(table.withoutFact(not).facts()).containsExactly(fact(ids("kiln"), ids("shelf")));
    assertThat(table.withoutField(new FieldId("shelf")).facts()).containsExactly(not);
    assertThat(table.withoutField(new FieldId("kiln")).facts()).isEmpty();
    Table two = firing(ids("peak")).withFact(fact(ids("kiln", "cone"), ids("fuel")));
    assertThat(two.withFact(fact(ids("cone", "kiln"), ids("fuel"))).facts())
        .as("in whatever order")
        .hasSize(1);
  }

  @Test
  void aFactHasTwoSidesThatAreApart() {
    assertThatThrownBy(() -> fact(List.of(), ids("fuel")))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> fact(ids("kiln"), List.of()))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> fact(ids("kiln"), ids("fuel", "kiln")))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("twice");
  }

  @Test
  void itIsReadAsPeopleSayIt() {
    Table table = firing(ids("peak"));
    assertThat(fact(ids("kiln"), ids("fuel", "shelf")).words(table))
        .isEqualTo("kiln decides fuel and shelf");
    assertThat(new KnownFact(ids("kiln", "cone"), ids("fuel"), false).words(table))
        .isEqualTo("kiln and cone do not decide fuel");
  }
}
