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

  /**
   * Every determinant of up to two columns, and every division of what it does not decide, put to
   * the rows one by one: exactly the least determinants that divide something are found, and none
   * of their blocks can be divided further.
   */
  @Property(tries = 300)
  void everythingIsFoundAndDividedAsFarAsItGoes(@ForAll long seed) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    var rows = new ArrayList<List<String>>();
    boolean crossed = random.nextBoolean();
    for (int row = random.nextInt(2, 9); row > 0; row--) {
      String a = "a" + random.nextInt(2);
      String b = "b" + random.nextInt(2);
      for (int c = crossed ? 2 : 1; c > 0; c--) {
        for (int d = crossed ? 2 : 1; d > 0; d--) {
          rows.add(List.of(a, b, "c" + (crossed ? c : random.nextInt(3)), "d" + d, "e" + c));
        }
      }
    }
    EncodedTable table = EncodedTable.of("t", List.of("a", "b", "c", "d", "e"), rows);
    var expected = new ArrayList<AttributeSet>();
    for (int chosen = 0; chosen < 32; chosen++) {
      AttributeSet determinant = set(chosen);
      if (Integer.bitCount(chosen) <= 2
          && expected.stream().noneMatch(determinant::containsAll)
          && splits(rows, determinant, free(rows, determinant), AttributeSet.EMPTY)) {
        expected.add(determinant);
      }
    }
    List<FoundMultivalued> found = MultivaluedSearch.of(table, () -> false);
    assertThat(found).extracting(FoundMultivalued::determinant).isEqualTo(expected);
    for (FoundMultivalued one : found) {
      AttributeSet free = free(rows, one.determinant());
      assertThat(one.blocks().stream().reduce(AttributeSet.EMPTY, AttributeSet::union))
          .isEqualTo(free);
      for (AttributeSet block : one.blocks()) {
        assertThat(splits(rows, one.determinant(), block, free.minus(block)))
            .as("%s", one)
            .isFalse();
      }
    }
  }

  private static AttributeSet set(int chosen) {
    AttributeSet set = AttributeSet.EMPTY;
    for (int place = 0; place < 5; place++) {
      set = (chosen >> place & 1) == 1 ? set.with(place) : set;
    }
    return set;
  }

  /** Columns that rows which agree in the determinant do not always agree in. */
  private static AttributeSet free(List<List<String>> rows, AttributeSet determinant) {
    AttributeSet free = AttributeSet.EMPTY;
    for (int column = 0; column < 5; column++) {
      for (List<String> one : rows) {
        for (List<String> other : rows) {
          boolean same = determinant.places().allMatch(p -> one.get(p).equals(other.get(p)));
          if (same && !one.get(column).equals(other.get(column))) {
            free = free.with(column);
          }
        }
      }
    }
    return free;
  }

  /** Whether a part of the columns is independent of all else that is free. */
  private static boolean splits(
      List<List<String>> rows,
      AttributeSet determinant,
      AttributeSet columns,
      AttributeSet beside) {
    for (int chosen = 1; chosen < 32; chosen++) {
      AttributeSet part = set(chosen);
      AttributeSet rest = columns.minus(part).union(beside);
      boolean proper = columns.containsAll(part) && !part.containsAll(columns);
      if (proper && !rest.isEmpty() && isIndependent(rows, determinant, part, rest)) {
        return true;
      }
    }
    return false;
  }

  /**
   * Definition: of two rows that agree in the determinant, one with the part exchanged is there.
   */
  private static boolean isIndependent(
      List<List<String>> rows, AttributeSet determinant, AttributeSet part, AttributeSet rest) {
    Set<List<String>> there = new HashSet<>(rows);
    for (List<String> one : rows) {
      for (List<String> other : rows) {
        if (determinant.places().allMatch(p -> one.get(p).equals(other.get(p)))) {
          var mixed = new ArrayList<>(one);
          part.places().forEach(p -> mixed.set(p, other.get(p)));
          if (!there.contains(mixed)) {
            return false;
          }
        }
      }
    }
    return true;
  }

  @Test
  void aTableJustNarrowEnoughIsSearchedAndAStoppedSearchFindsNothing() {
    var headers = new ArrayList<String>();
    for (int i = 0; i < MultivaluedSearch.WIDEST; i++) {
      headers.add("c" + i);
    }
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 4; i++) {
      var row = new ArrayList<String>(java.util.Collections.nCopies(MultivaluedSearch.WIDEST, "v"));
      row.set(0, "a" + i % 2);
      row.set(1, "b" + i / 2);
      rows.add(row);
    }
    EncodedTable table = EncodedTable.of("w", headers, rows);
    assertThat(MultivaluedSearch.of(table, () -> false))
        .containsExactly(
            new FoundMultivalued(
                AttributeSet.EMPTY, List.of(AttributeSet.of(0), AttributeSet.of(1))));
    assertThat(MultivaluedSearch.of(table, () -> true)).isEmpty();
    assertThat(MultivaluedSearch.of(EncodedTable.of("w", headers, List.of()), () -> false))
        .isEmpty();
  }
}
