package joiner.discovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import joiner.discovery.FoundInclusion.Reading;
import joiner.rows.EncodedTable;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class InclusionSearchTest {
  private static EncodedTable table(String name, String headers, String... rows) {
    return EncodedTable.of(
        name,
        List.of(headers.split(",")),
        java.util.Arrays.stream(rows).map(row -> List.of(row.split(",", -1))).toList());
  }

  private static final EncodedTable KILNS =
      table("kiln", "name,litres", "Ember,120", "Big Tom,300", "Little Ann,60");

  @Test
  void orphansAreCountedByRowAndNamed() {
    var rows = new ArrayList<String>();
    for (int i = 0; i < 20; i++) {
      rows.add(i == 7 ? "Old Sal" : i % 2 == 0 ? "Ember" : "Big Tom");
    }
    EncodedTable firings = table("firing", "kiln", rows.toArray(String[]::new));
    assertThat(InclusionSearch.usual().search(List.of(firings, KILNS)))
        .contains(
            new FoundInclusion(
                0, List.of(0), 1, List.of(0), 20, 1, List.of("Old Sal"), Reading.EXACT, true));
  }

  @Test
  void whatMatchesOnlyWithoutBlanksOrCaseIsSaidSo() {
    EncodedTable blanks = table("firing", "kiln", "Ember ", "Big Tom", " Little Ann");
    EncodedTable cases = table("firing", "kiln", "EMBER", "big tom", "Ember");
    assertThat(InclusionSearch.usual().search(List.of(blanks, KILNS)))
        .anyMatch(i -> i.as() == Reading.TRIMMED && i.missing() == 0 && i.inTable() == 1);
    assertThat(InclusionSearch.usual().search(List.of(cases, KILNS)))
        .anyMatch(i -> i.as() == Reading.FOLDED && i.missing() == 0 && i.inTable() == 1);
  }

  @Test
  void referencesToKeysOfTwoColumnsAreFound() {
    EncodedTable sessions =
        table("session", "course,number,room", "W,1,a", "W,2,b", "G,1,a", "G,2,a", "R,1,b");
    EncodedTable enrolments =
        table("enrolment", "course,session", "W,1", "W,2", "G,1", "R,1", "W,1");
    assertThat(InclusionSearch.usual().search(List.of(enrolments, sessions)))
        .anyMatch(
            i ->
                i.from().equals(List.of(0, 1))
                    && i.in().equals(List.of(0, 1))
                    && i.missing() == 0
                    && i.rows() == 5);
  }

  @Test
  void aPairThatIsInEachColumnButNotTogetherIsNoReference() {
    EncodedTable sessions = table("session", "course,number", "W,1", "W,2", "G,1", "R,3");
    EncodedTable enrolments = table("enrolment", "course,session", "R,1", "R,2", "G,3");
    assertThat(InclusionSearch.usual().search(List.of(enrolments, sessions)))
        .noneMatch(i -> i.fromTable() == 0 && i.from().size() == 2);
  }

  private static List<FoundInclusion> between(List<FoundInclusion> found, int from, int in) {
    return found.stream().filter(i -> i.fromTable() == from && i.inTable() == in).toList();
  }

  @Test
  void aPairIsToldOnceAsItMatchesBest() {
    EncodedTable exact = table("firing", "kiln", "Ember", "Big Tom", "Ember");
    assertThat(between(InclusionSearch.usual().search(List.of(exact, KILNS)), 0, 1))
        .singleElement()
        .satisfies(i -> assertThat(i.as()).isEqualTo(Reading.EXACT));
    // Nine of ten match exactly, the tenth without its blank: that is the better news.
    var rows = new ArrayList<String>();
    for (int i = 0; i < 10; i++) {
      rows.add(i == 3 ? "Ember " : i % 2 == 0 ? "Ember" : "Big Tom");
    }
    EncodedTable blank = table("firing", "kiln", rows.toArray(String[]::new));
    assertThat(between(InclusionSearch.usual().search(List.of(blank, KILNS)), 0, 1))
        .singleElement()
        .satisfies(
            i -> {
              assertThat(i.as()).isEqualTo(Reading.TRIMMED);
              assertThat(i.missing()).isZero();
              assertThat(i.orphans()).isEmpty();
            });
  }

  /** Of ten rows how many may be orphans, where at least nine in ten must match. */
  @ParameterizedTest
  @CsvSource({"10, 1, true", "10, 2, false", "20, 2, true", "19, 2, false"})
  void nearlyAllRowsMustMatchAKey(int rows, int orphans, boolean found) {
    var cells = new ArrayList<String>();
    for (int i = 0; i < rows; i++) {
      cells.add(i < orphans ? "Old Sal " + i : i % 2 == 0 ? "Ember" : "Big Tom");
    }
    EncodedTable firings = table("firing", "kiln", cells.toArray(String[]::new));
    List<FoundInclusion> all =
        between(InclusionSearch.usual().search(List.of(firings, KILNS)), 0, 1);
    assertThat(all).hasSize(found ? 1 : 0);
    all.forEach(i -> assertThat(i.missing()).isEqualTo(orphans));
  }

  @Test
  void aNearMissCountsOnlyWhereValuesCouldBeReferredTo() {
    EncodedTable repeated = table("kiln", "name", "Ember", "Ember", "Big Tom");
    var cells = new ArrayList<String>();
    for (int i = 0; i < 20; i++) {
      cells.add(i == 0 ? "Old Sal" : i % 2 == 0 ? "Ember" : "Big Tom");
    }
    EncodedTable firings = table("firing", "kiln", cells.toArray(String[]::new));
    assertThat(between(InclusionSearch.usual().search(List.of(firings, repeated)), 0, 1)).isEmpty();
    EncodedTable blanks = table("firing", "kiln", "Ember ", "Big Tom");
    assertThat(between(InclusionSearch.usual().search(List.of(blanks, repeated)), 0, 1)).isEmpty();
    EncodedTable one = table("firing", "kiln", "Sal", "Sal");
    assertThat(between(new InclusionSearch(0, () -> false).search(List.of(one, KILNS)), 0, 1))
        .as("a single value that is not there refers to nothing")
        .isEmpty();
  }

  @Test
  void emptyCellsAndEmptyColumnsReferToNothing() {
    EncodedTable firings = table("firing", "kiln,note", "Ember,", ",", "Big Tom,");
    List<FoundInclusion> found =
        between(InclusionSearch.usual().search(List.of(firings, KILNS)), 0, 1);
    assertThat(found)
        .singleElement()
        .satisfies(
            i -> {
              assertThat(i.rows()).isEqualTo(2);
              assertThat(i.from()).containsExactly(0);
              assertThat(i.key()).isTrue();
            });
  }

  @Test
  void tenOrphansAreNamedInOrder() {
    var cells = new ArrayList<String>();
    for (int i = 0; i < 200; i++) {
      cells.add(i < 12 ? "old " + (char) ('l' - i) : i % 2 == 0 ? "Ember" : "Big Tom");
    }
    EncodedTable firings = table("firing", "kiln", cells.toArray(String[]::new));
    FoundInclusion found =
        between(InclusionSearch.usual().search(List.of(firings, KILNS)), 0, 1).getFirst();
    assertThat(found.orphans()).hasSize(10).isSorted().startsWith("old a", "old b");
    assertThat(found.missing()).isEqualTo(12);
  }

  @Test
  void exactOnesComeFirstThenThoseByTableAndColumn() {
    EncodedTable a = table("a", "x,y", "Ember,Ember", "Ash,Ash");
    EncodedTable b = table("b", "x", "Ember", "Ash");
    List<FoundInclusion> found = InclusionSearch.usual().search(List.of(a, b));
    assertThat(found.stream().map(i -> i.fromTable() + "" + i.from() + i.inTable() + i.in()))
        .containsExactly("0[0]0[1]", "0[0]1[0]", "0[1]0[0]", "0[1]1[0]", "1[0]0[0]", "1[0]0[1]");
  }

  /** Of ten enrolments how many name no session; one in ten may. */
  @ParameterizedTest
  @CsvSource({"10, 1, true", "10, 2, false"})
  void referencesToSeveralColumnsMayMissOneInTen(int rows, int orphans, boolean found) {
    EncodedTable sessions = table("session", "course,number", "W,1", "W,2", "G,1", "G,3", "R,2");
    var cells = new ArrayList<String>();
    for (int i = 0; i < rows; i++) {
      cells.add(i < orphans ? "R,3" : i % 2 == 0 ? "W,2" : "G,1");
    }
    cells.add(",1");
    EncodedTable enrolments = table("enrolment", "course,session", cells.toArray(String[]::new));
    List<FoundInclusion> pairs =
        between(InclusionSearch.usual().search(List.of(enrolments, sessions)), 0, 1).stream()
            .filter(i -> i.from().size() == 2)
            .toList();
    assertThat(pairs).hasSize(found ? 1 : 0);
    pairs.forEach(
        i -> {
          assertThat(i.rows()).as("a row with an empty part refers to nothing").isEqualTo(rows);
          assertThat(i.missing()).isEqualTo(orphans);
          assertThat(i.orphans()).containsExactly("R, 3");
        });
  }

  @Test
  void aSearchThatIsStoppedFindsNothingMore() {
    assertThat(new InclusionSearch(0.9, () -> true).search(List.of(KILNS, KILNS))).isEmpty();
  }

  /** Exact inclusions of single columns against a comparison of all pairs of value sets. */
  @Property(tries = 300)
  void everyExactInclusionIsFoundAndNothingElse(@ForAll long seed) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    var tables = new ArrayList<EncodedTable>();
    for (int t = 0; t < 3; t++) {
      var rows = new ArrayList<List<String>>();
      for (int row = random.nextInt(8); row >= 0; row--) {
        var cells = new ArrayList<String>();
        for (int column = 0; column < 3; column++) {
          int value = random.nextInt(2 + column * 2);
          cells.add(value == 0 ? "" : "v" + value);
        }
        rows.add(cells);
      }
      tables.add(EncodedTable.of("t" + t, List.of("a", "b", "c"), rows));
    }
    Set<String> expected = new HashSet<>();
    for (int from = 0; from < 9; from++) {
      for (int in = 0; in < 9; in++) {
        Set<String> values = values(tables, from);
        if (from != in && !values.isEmpty() && values(tables, in).containsAll(values)) {
          expected.add(from + " in " + in);
        }
      }
    }
    Set<String> found = new HashSet<>();
    for (FoundInclusion i : InclusionSearch.usual().search(tables)) {
      if (i.missing() == 0 && i.from().size() == 1 && i.as() == Reading.EXACT) {
        found.add(
            (i.fromTable() * 3 + i.from().getFirst())
                + " in "
                + (i.inTable() * 3 + i.in().getFirst()));
      }
    }
    assertThat(found).isEqualTo(expected);
  }

  private static Set<String> values(List<EncodedTable> tables, int column) {
    EncodedTable table = tables.get(column / 3);
    Set<String> values = new HashSet<>();
    for (int row = 0; row < table.rows(); row++) {
      values.add(table.text(row, column % 3));
    }
    values.remove("");
    return values;
  }
}
