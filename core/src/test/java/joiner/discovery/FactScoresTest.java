package joiner.discovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import joiner.dependency.AttributeSet;
import joiner.rows.EncodedTable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Why a fact is believed: the very scores and reasons, worked out by hand on small tables. */
class FactScoresTest {
  private static final double EXACT = 1e-9;

  private static EncodedTable table(String headers, List<List<String>> rows) {
    return EncodedTable.of("t", List.of(headers.split("\\|")), rows);
  }

  /** A table of one column. */
  private static EncodedTable column(String header, List<String> cells) {
    return table(header, cells.stream().map(List::of).toList());
  }

  private static List<String> times(int count, String text) {
    return IntStream.range(0, count).mapToObj(i -> text).toList();
  }

  @SafeVarargs
  private static List<String> all(List<String>... parts) {
    return Arrays.stream(parts).flatMap(List::stream).toList();
  }

  private static List<ColumnProfile> profiles(EncodedTable table) {
    return table.columns().stream().map(ColumnProfile::of).toList();
  }

  private static FactSearch search(EncodedTable table) {
    return FactSearch.of(table, profiles(table), () -> false);
  }

  private static Fact.Decides ask(EncodedTable table, int dependent, int... determinant) {
    return FactSearch.ask(table, profiles(table), AttributeSet.of(determinant), dependent);
  }

  /** Twelve firings in three kilns, four each. */
  private static EncodedTable firings(String third, List<String> thirdCells) {
    var rows = new ArrayList<List<String>>();
    String[] kilns = {"Ember", "Big Tom", "Ash"};
    String[] litres = {"120", "300", "60"};
    for (int i = 0; i < 12; i++) {
      rows.add(List.of(kilns[i % 3], litres[i % 3], thirdCells.get(i)));
    }
    return table("Kiln|Kiln litres|" + third, rows);
  }

  /** First-order expectation of the information, (a − 1)(b − 1) / 2n. */
  private static double beyondChance(int groups, int values, int rows, double entropy) {
    return 1 - (groups - 1.0) * (values - 1.0) / (2.0 * rows) / entropy;
  }

  @Test
  void aDependencyIsScoredByWhatItSavesAndTellsBeyondChance() {
    Fact.Decides fact = ask(firings("Note", times(12, "x")), 1, 0);
    double beyond = beyondChance(3, 3, 12, Math.log(3));
    double redundancy = 1 - 3 / 12.0;
    assertThat(fact.score())
        .isEqualTo(0.2 + 0.25 * redundancy + 0.55 * beyond + 0.05, within(EXACT));
    assertThat(fact.id()).isEqualTo("kiln.decides.kiln_litres");
    assertThat(fact.reasons())
        .containsExactly(
            "true in all 12 rows",
            "3 different Kiln in 12 rows",
            "85 % of what Kiln litres says is told beyond chance");
  }

  @Test
  void exceptionsCountFourfold() {
    var note = new ArrayList<>(times(12, "quiet"));
    for (int i = 0; i < 12; i += 3) {
      note.set(i, "loud"); // Ember is loud, the others are quiet,
    }
    note.set(3, "quiet"); // but for one row.
    Fact.Decides fact = ask(firings("Note", note), 2, 0);
    assertThat(fact.exceptions()).isEqualTo(1);
    double loud = 3 / 12.0;
    double entropy = -loud * Math.log(loud) - (1 - loud) * Math.log(1 - loud);
    double beyond = beyondChance(3, 2, 12, entropy);
    assertThat(fact.score())
        .isEqualTo((1 - 4 / 12.0) * (0.2 + 0.25 * 0.75 + 0.55 * beyond), within(EXACT));
    assertThat(fact.reasons()).contains("true in 11 of 12 rows");
  }

  @Test
  void severalColumnsAndColumnsThatSeldomNameThingsCountLess() {
    List<String> days = IntStream.range(0, 12).mapToObj(i -> "2026-03-1" + (i / 6)).toList();
    Fact.Decides pair = ask(firings("Day", days), 1, 0, 2);
    double beyond = beyondChance(6, 3, 12, Math.log(3));
    double score = 0.55 * 0.5 * (0.2 + 0.25 * (1 - 6 / 12.0) + 0.55 * beyond) + 0.05;
    assertThat(pair.score()).isEqualTo(score, within(EXACT));
    assertThat(pair.reasons())
        .contains(
            "6 different Kiln and Day in 12 rows",
            "values like those of Kiln and Day seldom name things",
            "it takes 2 columns together");
    assertThat(pair.id()).isEqualTo("kiln+day.decides.kiln_litres");
  }

  @Test
  void emptyCellsAreAGroupOfTheirOwnAndMakeAWorseName() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 12; i++) {
      rows.add(i % 2 == 0 ? List.of("", "moss") : List.of("x", "celadon"));
    }
    Fact.Decides fact = ask(table("Mark|Glaze", rows), 1, 0);
    double beyond = beyondChance(2, 2, 12, Math.log(2));
    assertThat(fact.reasons()).contains("2 different Mark in 12 rows");
    assertThat(fact.score())
        .isEqualTo(0.8 * (0.2 + 0.25 * (1 - 2 / 12.0) + 0.55 * beyond), within(EXACT));
  }

  /** How much like names values of a type are; common practice, no source. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "Ember ! Ash ! 1",
        "1.5 ! 2.25 ! 0.35",
        "1 ! 2 ! 0.8",
        "2026-03-14 ! 2026-03-15 ! 0.5",
        "2026-03-14 10:00 ! 2026-03-15 10:00 ! 0.4",
        "10:00 ! 11:00 ! 0.4",
        "yes ! no ! 0.2",
        "mara@example.org ! odo@example.org ! 0.95"
      })
  void whatLooksLikeANameDecides(String one, String other, double nameLike) {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 8; i++) {
      rows.add(List.of(i % 2 == 0 ? one : other, i % 2 == 0 ? "moss" : "celadon"));
    }
    double beyond = beyondChance(2, 2, 8, Math.log(2));
    Fact.Decides fact = ask(table("Key|Glaze", rows), 1, 0);
    assertThat(fact.score())
        .isEqualTo(nameLike * (0.2 + 0.25 * 0.75 + 0.55 * beyond), within(EXACT));
    assertThat(fact.reasons().stream().anyMatch(reason -> reason.contains("seldom name")))
        .isEqualTo(nameLike < 0.8);
  }

  @Test
  void headersShareAWordOnlyFromThreeLettersOn() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 8; i++) {
      String key = i % 2 == 0 ? "a" : "b";
      rows.add(List.of(key, key + "1x", key + "2x", key + "3x"));
    }
    EncodedTable table = table("No of kiln|No of load|the KILN's colour|jug", rows);
    double plain = ask(table, 3, 0).score();
    assertThat(ask(table, 1, 0).score()).as("no, of: too short").isEqualTo(plain, within(EXACT));
    assertThat(ask(table, 2, 0).score()).isEqualTo(plain + 0.05, within(EXACT));
  }

  @Test
  void ofTwoThatDecideEachOtherTheOneFurtherLeftDecidesUnlessTheOtherIsMuchBetter() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 12; i++) {
      rows.add(
          List.of(
              "1" + i % 3 + ".5", "kiln " + "abc".charAt(i % 3), "site " + "abc".charAt(i % 3)));
    }
    List<String> ids =
        search(table("Volume|Kiln|Site", rows)).facts().stream()
            .filter(Fact.Decides.class::isInstance)
            .map(Fact::id)
            .toList();
    assertThat(ids)
        .as("a volume names nothing; of two names the left one; the right one says no more")
        .containsExactlyInAnyOrder("kiln.decides.volume", "kiln.decides.site");
  }

  @Test
  void whatNeverChangesIsNotDecidedAndListsDecideNothing() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 20; i++) {
      String list = i % 2 == 0 ? "bowl; jug" : "jug; bowl; tile";
      rows.add(List.of("same", list, i % 2 == 0 ? "low" : "high"));
    }
    assertThat(search(table("Studio|Load|Fill", rows)).facts())
        .extracting(Fact::id)
        .contains("load.list")
        .noneMatch(id -> id.contains("decides.studio") || id.startsWith("load.decides"));
  }

  @Test
  void numberedColumnsAreScoredByTheValuesTheyShare() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 20; i++) {
      rows.add(List.of("g" + i % 4, i % 2 == 0 ? "g" + i % 8 : "", "n" + i));
    }
    Fact.Repeats fact =
        (Fact.Repeats)
            search(table("Glaze 1|Glaze 2|No", rows)).facts().stream()
                .filter(Fact.Repeats.class::isInstance)
                .findFirst()
                .orElseThrow();
    // Values g0 to g3 and g0, g2, g4, g6: six different ones, two in both.
    assertThat(fact.score()).isEqualTo(0.65 + 0.3 * 2 / 6, within(EXACT));
    assertThat(fact.reasons())
        .containsExactly(
            "2 numbered columns hold 30 values in all",
            "33 % of their values occur in more than one of them");
    assertThat(fact.bases()).containsExactly(new Fact.Repeats.Base("Glaze", List.of(0, 1)));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "Glaze 1|Glaze 2; true",
        "Glaze 0|Glaze 1; true",
        "Glaze 2|Glaze 3; false",
        "Glaze 1|Glaze 3; false",
        "glaze (1)|GLAZE (2); true",
        "Glaze1|Glaze_2; true",
        "Glaze #1|Glaze #2; true",
        "Glaze 1|Kiln 2; false",
        "1|2; false"
      })
  void onlyNumbersInARowFromNoughtOrOneAreAList(String headers, boolean repeats) {
    var rows = List.of(List.of("a", "b"), List.of("b", "a"));
    EncodedTable table = table(headers, rows);
    assertThat(RepeatedColumns.find(table, profiles(table), new FactNames(table.headers())))
        .hasSize(repeats ? 1 : 0);
  }

  @Test
  void numberedColumnsOfDifferentKindsAreNoListButAnEmptyOneFitsAll() {
    EncodedTable mixed = table("G 1|G 2", List.of(List.of("a", "1"), List.of("b", "2")));
    assertThat(RepeatedColumns.find(mixed, profiles(mixed), new FactNames(mixed.headers())))
        .isEmpty();
    EncodedTable empty = table("G 1|G 2", List.of(List.of("1", ""), List.of("2", "")));
    assertThat(RepeatedColumns.find(empty, profiles(empty), new FactNames(empty.headers())))
        .hasSize(1);
  }

  /** Of so many rows, how many are filled differently; 95 % must be filled alike. */
  @ParameterizedTest
  @CsvSource({"20, 2, true", "20, 3, false"})
  void columnsRepeatTogetherWhenNearlyAllRowsAreFilledAlike(int rows, int odd, boolean together) {
    var cells = new ArrayList<List<String>>();
    for (int i = 0; i < rows; i++) {
      cells.add(List.of("jug", "4", i % 2 == 0 ? "jug" : "", i % 2 == 0 != i < odd ? "2" : ""));
    }
    EncodedTable table = table("Piece 1|Count 1|Piece 2|Count 2", cells);
    List<Fact.Repeats> found =
        RepeatedColumns.find(table, profiles(table), new FactNames(table.headers()));
    assertThat(found).hasSize(together ? 1 : 2);
    assertThat(found.getFirst().reasons().getLast())
        .isEqualTo(
            together
                ? "filled in the same rows as Count"
                : "100 % of their values occur in more than one of them");
  }

  @Test
  void aColumnOfOtherLengthDoesNotRepeatTogether() {
    EncodedTable table =
        table(
            "P 1|C 1|P 2|C 2|P 3",
            List.of(List.of("a", "1", "b", "2", "c"), List.of("a", "1", "b", "2", "c")));
    assertThat(RepeatedColumns.find(table, profiles(table), new FactNames(table.headers())))
        .hasSize(2);
  }

  @Test
  void aShortListThatNothingGivesATableIsALookup() {
    EncodedTable table = column("Colour", all(times(5, "moss"), times(4, "celadon"), times(1, "")));
    Fact.IsLookup fact = (Fact.IsLookup) search(table).facts().getFirst();
    assertThat(fact.id()).isEqualTo("colour.lookup");
    assertThat(fact.score()).isEqualTo(0.4 + 0.3 * (1 - 2 / 9.0), within(EXACT));
    assertThat(fact.reasons()).containsExactly("2 different values in 9 cells");
    EncodedTable rare = column("Colour", all(times(3, "moss"), times(2, "celadon")));
    assertThat(search(rare).facts()).as("each must come three times").isEmpty();
  }

  /** How often each of two values stands in two numbered columns: three times each makes a list. */
  @ParameterizedTest
  @CsvSource({"3, true", "2, false"})
  void theValuesOfNumberedColumnsAreOneLookup(int rows, boolean lookup) {
    var cells = new ArrayList<List<String>>();
    for (int i = 0; i < rows; i++) {
      cells.add(List.of("moss", "celadon"));
    }
    assertThat(search(table("Glaze 1|Glaze 2", cells)).facts())
        .extracting(Fact::id)
        .filteredOn(id -> id.endsWith("lookup"))
        .isEqualTo(lookup ? List.of("glaze.lookup") : List.of());
  }

  @Test
  void oneValueOrNumbersInNumberedColumnsAreNoLookup() {
    assertThat(search(table("G 1|G 2", List.of(List.of("a", "a"), List.of("a", "a")))).facts())
        .noneMatch(Fact.IsLookup.class::isInstance);
    var numbers = new ArrayList<List<String>>();
    for (int i = 0; i < 6; i++) {
      numbers.add(List.of("1", "2"));
    }
    assertThat(search(table("G 1|G 2", numbers)).facts())
        .noneMatch(Fact.IsLookup.class::isInstance);
  }

  @Test
  void whatADependencyPlacesIsNoLookupBeside() {
    List<String> ids =
        search(firings("Note", times(12, "x"))).facts().stream().map(Fact::id).toList();
    assertThat(ids).contains("kiln.decides.kiln_litres").doesNotContain("kiln.lookup");
  }

  private static List<Fact.SameThing> spellings(List<String> cells) {
    EncodedTable table = column("Clay", cells);
    return SpellingVariants.find(table, profiles(table), new FactNames(table.headers()));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "White Clay;4;white-clay;4;0.8",
        "Süd;3;Sud;5;0.8",
        "Stoneware;8;Stonewar;2;0.6",
        "Stoneware;7;Stonewar;2;0",
        "Potter;8;Poter;2;0",
        "Potters;8;Potter;2;0.6",
        "Potter;8;Potten;2;0.6",
        "Clay 12 box;8;Clay 13 box;2;0",
        "Clay box;8;Clay boxes;2;0",
        "-.-;4;..;4;0"
      })
  void twoSpellingsOfOneThing(String one, int ones, String other, int others, double score) {
    List<Fact.SameThing> found = spellings(all(times(ones, one), times(others, other)));
    if (score == 0) {
      assertThat(found).isEmpty();
      return;
    }
    Fact.SameThing fact = found.getFirst();
    assertThat(found).hasSize(1);
    assertThat(fact.score()).isEqualTo(score);
    boolean first = ones >= others;
    assertThat(List.of(fact.keep(), fact.other()))
        .containsExactly(first ? one : other, first ? other : one);
    assertThat(List.of(fact.keepRows(), fact.otherRows()))
        .containsExactly(Math.max(ones, others), Math.min(ones, others));
    assertThat(fact.reasons())
        .containsExactly(
            score > 0.7
                ? "the same letters but for case, accents, blanks and punctuation"
                : "one letter apart, and one is much rarer");
  }

  @Test
  void onlyWhereValuesComeAgainAreSpellingsLookedFor() {
    assertThat(spellings(List.of("Moss", "moss", "Ash", "Ash"))).as("3 of 4 differ").isEmpty();
    assertThat(spellings(List.of("Moss", "moss", "Moss", "Moss"))).hasSize(1);
    assertThat(spellings(List.of("Moss", "moss", "Moss", ""))).as("2 of 3 differ").isEmpty();
  }

  @Test
  void wordsBeyondSixtyLettersAreComparedByTheirLettersOnly() {
    String long60 = "a".repeat(59) + "b";
    String near60 = "a".repeat(59) + "c";
    assertThat(spellings(all(times(8, long60), times(2, near60)))).hasSize(1);
    assertThat(spellings(all(times(8, long60 + "x"), times(2, near60 + "x")))).isEmpty();
  }

  @Test
  void whatHasTooManyNeighboursIsASeriesAndNotASlip() {
    var cells = new ArrayList<String>();
    for (char c = 'a'; c < 'a' + 20; c++) {
      cells.addAll(times(c == 'a' ? 40 : 2, "kilnxy" + c));
    }
    assertThat(spellings(cells)).as("twenty share what is left").hasSize(19);
    cells.addAll(times(2, "kilnxyz"));
    assertThat(spellings(cells)).as("twenty-one do").isEmpty();
  }

  private static List<Fact.HoldsSeveral> lists(List<String> cells) {
    EncodedTable table = column("Load", cells);
    return SeveralValues.find(table, profiles(table), new FactNames(table.headers()));
  }

  @Test
  void aListInCellsIsScoredByHowManyCellsItCuts() {
    Fact.HoldsSeveral plain =
        lists(all(times(2, "jug; bowl"), times(1, "bowl; jug"), times(7, "jug"))).getFirst();
    assertThat(plain.score()).isEqualTo(0.6 + 0.2 * 2 * 3 / 10 + 0.05, within(EXACT));
    assertThat(plain.reasons())
        .containsExactly(
            "3 of 10 cells hold several values, 13 in all",
            "2 different values come again and again");
    Fact.HoldsSeveral counted =
        lists(all(times(2, "2 jugs; 1 bowls"), times(2, "1 bowls; 3 jugs"))).getFirst();
    assertThat(counted.counted()).isTrue();
    assertThat(counted.score()).isEqualTo(0.95, within(EXACT));
    assertThat(counted.reasons().getLast())
        .isEqualTo("2 different things, each with a count in front come again and again");
    assertThat(
            lists(all(times(2, "2 jugs; bowls"), times(2, "bowls; 3 jugs"))).getFirst().counted())
        .isFalse();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "a|b#2,b#17 ! false ! two of nineteen cells: under a tenth is enough only from two on",
        "a|b#2,b#18 ! true ! a tenth of the cells is cut",
        "a|b#2,b#19 ! false ! less than a tenth",
        "a|b#1,b|a#1 ! true ! two cells are cut",
        "a|b#1,b#1,a#1 ! false ! one cell is cut",
        "a|b#2,c#1,a#1 ! false ! later values do not come first",
        "a|b#1,b|a#1,c#1,d#1 ! true ! half of the values come again",
        "a|b#1,b|a#1,c#1,d#1,e#1 ! false ! fewer than half do",
        "a|b#2,a|#1 ! false ! an empty piece",
        "a|b#2,a| b#2,b#2 ! false ! a piece with a blank"
      })
  void whatASeparatorMustDoToBeBelieved(String cells, boolean list, String because) {
    var all = new ArrayList<String>();
    for (String cell : cells.split(",")) {
      all.addAll(times(Integer.parseInt(cell.split("#")[1]), cell.split("#")[0]));
    }
    boolean expected = because.startsWith("two of nineteen") || list;
    assertThat(!lists(all).isEmpty()).as(because).isEqualTo(expected);
  }

  @Test
  void piecesLongerThanSixtyAreSentences() {
    String sixty = "x".repeat(60);
    assertThat(lists(all(times(2, sixty + "; a"), times(2, "a; " + sixty)))).hasSize(1);
    assertThat(lists(all(times(2, sixty + "x; a"), times(2, "a; " + sixty + "x")))).isEmpty();
  }

  @Test
  void theSearchSaysWhenItWasCutShort() {
    EncodedTable table = firings("Note", times(12, "x"));
    assertThat(search(table).complete()).isTrue();
    assertThat(FactSearch.of(table, profiles(table), () -> true).complete()).isFalse();
  }

  @Test
  void factsAreOrderedByScoreAndThenById() {
    List<Fact> facts = search(firings("Note", times(12, "x"))).facts();
    for (int i = 1; i < facts.size(); i++) {
      assertThat(facts.get(i - 1).score()).isGreaterThanOrEqualTo(facts.get(i).score());
    }
  }

  @Test
  void onlyColumnsThatAreNotRepeatedAreSearchedForDependencies() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 12; i++) {
      String glaze = i % 2 == 0 ? "moss" : "ash";
      rows.add(List.of(glaze, glaze, "x" + i % 2));
    }
    assertThat(search(table("Glaze 1|Glaze 2|Mark", rows)).facts())
        .filteredOn(Fact.Decides.class::isInstance)
        .flatExtracting(
            fact -> List.copyOf(((Fact.Decides) fact).determinant().places().boxed().toList()))
        .doesNotContainAnyElementsOf(Set.of(0, 1));
  }
}
