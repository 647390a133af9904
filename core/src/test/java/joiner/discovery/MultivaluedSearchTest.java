package joiner.discovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import joiner.dependency.AttributeSet;
import joiner.rows.EncodedTable;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class MultivaluedSearchTest {
  @Test
  void skillsAndLanguagesOfAMemberHaveNothingToDoWithEachOther() {
    var rows = new ArrayList<List<String>>();
    for (String skill : List.of("throwing", "glazing", "firing")) {
      for (String language : List.of("Cornish", "Dutch")) {
        rows.add(List.of("Mara", skill, language));
      }
    }
    rows.add(List.of("Odo", "throwing", "Irish"));
    rows.add(List.of("Ines", "glazing", "Irish"));
    rows.add(List.of("Ines", "glazing", "Dutch"));
    assertThat(
            MultivaluedSearch.of(
                EncodedTable.of("skills", List.of("Member", "Skill", "Language"), rows),
                () -> false))
        .containsExactly(
            new FoundMultivalued(
                AttributeSet.of(0), List.of(AttributeSet.of(1), AttributeSet.of(2))));
  }

  @Test
  void widerTablesAreNotSearched() {
    var headers = new ArrayList<String>();
    var row = new ArrayList<String>();
    for (int i = 0; i <= MultivaluedSearch.WIDEST; i++) {
      headers.add("c" + i);
      row.add("v");
    }
    assertThat(MultivaluedSearch.of(EncodedTable.of("w", headers, List.of(row)), () -> false))
        .isEmpty();
  }

  /** What is found is put to the rows: the projections joined give back the rows, and no more. */
  @Property(tries = 500)
  void joiningTheBlocksGivesBackTheRows(@ForAll long seed) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    var rows = new ArrayList<List<String>>();
    for (int a = random.nextInt(1, 3); a > 0; a--) {
      for (int b = random.nextInt(1, 3); b > 0; b--) {
        for (int c = random.nextInt(1, 4); c > 0; c--) {
          rows.add(List.of("a" + a, "b" + b, "c" + c, "d" + random.nextInt(2)));
        }
      }
    }
    EncodedTable table = EncodedTable.of("t", List.of("a", "b", "c", "d"), rows);
    for (FoundMultivalued found : MultivaluedSearch.of(table, () -> false)) {
      AttributeSet block = found.blocks().getFirst();
      Set<List<String>> joined = new HashSet<>();
      for (List<String> one : rows) {
        for (List<String> other : rows) {
          boolean same =
              found.determinant().places().allMatch(p -> one.get(p).equals(other.get(p)));
          if (same) {
            var mixed = new ArrayList<>(other);
            block.places().forEach(p -> mixed.set(p, one.get(p)));
            joined.add(mixed);
          }
        }
      }
      assertThat(joined).isEqualTo(new HashSet<>(rows));
    }
  }
}
