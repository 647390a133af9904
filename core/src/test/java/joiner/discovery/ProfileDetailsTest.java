package joiner.discovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import java.util.stream.IntStream;
import joiner.discovery.ColumnProfile.Note;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.EncodedColumn;
import joiner.rows.EncodedTable;
import joiner.rows.ValueForm;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a profile says at the very edge of what it says; the forms are common practice. */
class ProfileDetailsTest {
  private static ColumnProfile of(String... cells) {
    return named("Note", cells);
  }

  private static ColumnProfile named(String header, String... cells) {
    var rows = Arrays.stream(cells).map(List::of).toList();
    return ColumnProfile.of(EncodedTable.of("t", List.of(header), rows).columns().getFirst());
  }

  private static String[] times(int count, String... texts) {
    return IntStream.range(0, count).mapToObj(i -> texts[i % texts.length]).toArray(String[]::new);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        // Numbers: signs, groups, decimals.
        "1,234,567 | 1,000,000.5 ! NUMBER_POINT",
        "1.234.567 | 1.000.000,5 ! NUMBER_COMMA",
        "1 234 567 | 1 000,5 ! NUMBER_COMMA",
        "1'234'567.25 | 1'000.5 ! NUMBER_POINT",
        "1,23,456 | 1 ! TEXT",
        "1234,567.5 | 1 ! TEXT",
        "1,234.567.8 | 1 ! TEXT",
        "1 234,567.8 | 1 ! TEXT",
        "1,234 567 | 1 ! TEXT",
        "1.234,56,7 | 1 ! TEXT",
        "1,234,56 | 1 ! TEXT",
        "12,3 | 1,25 ! NUMBER_COMMA",
        "12. | 1.5 ! NUMBER_POINT",
        "12, | 1 ! TEXT",
        ".5 | 1.5 ! NUMBER_POINT",
        ",5 | 1,5 ! NUMBER_COMMA",
        "- | + ! TEXT",
        "., | 1 ! TEXT",
        "1e5 | 2E-10 ! NUMBER_POINT",
        "1.5e5 | 1 ! NUMBER_POINT",
        "1.5.5e5 | 1 ! TEXT",
        "1,5e5 | 1 ! TEXT",
        "e5 | 1 ! TEXT",
        ".e5 | 1 ! TEXT",
        "1e1234 | 1 ! TEXT",
        "1x5 | 1 ! TEXT",
        "-1,234.5 | 7.0 ! NUMBER_POINT",
        // Dates.
        "2026-3-4 | 2026-12-31 ! DATE_ISO",
        "2026-03-143 | 2026-03-14 ! TEXT",
        "2026-03- | 2026-03-14 ! TEXT",
        "2026-13-01 | 2026-03-14 ! TEXT",
        "2026-00-01 | 2026-03-14 ! TEXT",
        "2026-03-00 | 2026-03-14 ! TEXT",
        "2024-02-29 | 2026-02-28 ! DATE_ISO",
        "2026-02-29 | 2026-02-28 ! TEXT",
        "31.12.2026 | 1.1.26 ! DATE_DAY_FIRST",
        "12/31/2026 | 1/2/2026 ! DATE_MONTH_FIRST",
        "1/2/202 | 1/2/2026 ! TEXT",
        "111/2/2026 | 1/2/2026 ! TEXT",
        "1/222/2026 | 1/2/2026 ! TEXT",
        "1//2026 | 1/2/2026 ! TEXT",
        "1/2-2026 | 1/2/2026 ! TEXT",
        "12345-01-01 | 2026-03-14 ! TEXT",
        "12 March 2026 | 3 May 2026 ! DATE_NAMED",
        "12. Mar. 2026 | 3-May-2026 ! DATE_NAMED",
        "March 12, 2026 | May 3, 2026 ! DATE_NAMED",
        "12 March | 3 May ! TEXT",
        // Times and moments.
        "9:05 | 18:05:30.5 ! TIME",
        "24:05 | 9:05 ! TEXT",
        "18:05:30.123456 | 18:05 ! TEXT",
        "2026-03-14 9:05 | 2026-03-14T18:05:30 ! DATE_TIME",
        "2026-03-14x9:05 | 2026-03-14 9:05 ! TEXT",
        "3/14/2026 9:05 | 3/15/2026 18:05 ! DATE_TIME_MONTH_FIRST",
        "2026-03-14 18:05:00 +01:00 | 2026-03-14T18:05:00Z ! DATE_TIME_ZONED",
        "14/03/2026 18:05:00+01:00 | 14/03/2026 18:05 ! TEXT",
        // Addresses and the rest.
        "mara@kiln | odo@kiln ! EMAIL",
        "@kiln | odo@kiln ! TEXT",
        "mara@ | odo@kiln ! TEXT",
        "ma@ra@kiln | odo@kiln ! TEXT",
        "ma ra@kiln | odo@kiln ! TEXT",
        "6f9619ff-8b86-4011-b42d-00c04fc964ff | 6F9619FF-8B86-4011-B42D-00C04FC964FF ! UUID",
        "6f9619ff-8b86-4011-b42d-00c04fc964fg | 6f9619ff-8b86-4011-b42d-00c04fc964ff ! TEXT",
        "06f9619f-8b864-011-b42d-00c04fc964ff | 6f9619ff-8b86-4011-b42d-00c04fc964ff ! TEXT",
        "wahr | falsch ! TRUTH",
        "on | off ! TRUTH"
      })
  void theFormOfValues(String cells, ValueForm form) {
    assertThat(of(cells.split(" \\| ")).form()).isEqualTo(form);
  }

  @Test
  void anAddressMayBeLongerThanAnyNumber() {
    assertThat(of("m".repeat(70) + "@kiln").form()).isEqualTo(ValueForm.EMAIL);
    assertThat(of("1".repeat(64)).form()).isEqualTo(ValueForm.WHOLE);
    assertThat(of("1".repeat(65)).form()).isEqualTo(ValueForm.TEXT);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "1,234.50 | 1.5 ! 1234.50 | 1.5",
        "1 234,5 | 1,5 ! 1234.5 | 1.5",
        "12. | .5 ! 12.0 | 0.5",
        "1e3 | 1.5 ! 1000 | 1.5",
        "2026-03-14 9:05 | 2026-03-14T18:05:30.25 ! 2026-03-14T09:05:00 | 2026-03-14T18:05:30.25",
        "3/14/2026 9:05 | 3/15/2026 18:05 ! 2026-03-14T09:05:00 | 2026-03-15T18:05:00",
        "12 March 2026 | 3 May 2026 ! 2026-03-12 | 2026-05-03",
        "2026-03-14 18:05:00 +01:00 | 2026-03-14T18:05:00Z ! 2026-03-14T18:05:00+01:00 | 2026-03-14T18:05:00Z",
        "31.12.00 | 1.1.99 ! 2000-12-31 | 1999-01-01"
      })
  void valuesAreWrittenAsTheirTypeWantsThem(String cells, String written) {
    ColumnProfile profile = of(cells.split(" \\| "));
    assertThat(Arrays.stream(cells.split(" \\| ")).map(profile::canonical))
        .containsExactly(written.split(" \\| "));
    assertThat(profile.canonical("no such thing")).isEqualTo("no such thing");
  }

  @Test
  void whatElseTheValuesShowIsNoted() {
    assertThat(of("1,234,567", "2").notes()).containsExactly(Note.GROUPED);
    assertThat(of("14.03.26", "15.03.2026").notes())
        .containsExactlyInAnyOrder(Note.SHORT_YEARS, Note.DAY_ORDER_PROVED);
    assertThat(of("12/31/2026").notes()).containsExactly(Note.DAY_ORDER_PROVED);
    assertThat(of("1/2/2026 9:05").notes()).containsExactly(Note.DAY_FIRST_UNDECIDED);
    assertThat(of("14/2/2026 9:05").notes()).containsExactly(Note.DAY_ORDER_PROVED);
    assertThat(of("12/31/2026 9:05").notes()).containsExactly(Note.DAY_ORDER_PROVED);
    assertThat(of(" moss", "ash").notes()).containsExactly(Note.OUTER_BLANKS);
    assertThat(of("moss\t", "ash").notes()).containsExactly(Note.OUTER_BLANKS);
    assertThat(of("moss ash").notes()).isEmpty();
    assertThat(of("=A1", "ash").notes()).containsExactly(Note.FORMULAS);
    assertThat(of("=", "ash").notes()).isEmpty();
    assertThat(of("2026-03-14").notes()).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({"20, 1, WHOLE", "20, 2, TEXT", "19, 1, TEXT", "40, 2, WHOLE", "40, 3, TEXT"})
  void oneInTwentyMayBeAMistakeOfTwentyOnwards(int rows, int mistakes, ValueForm form) {
    String[] cells = IntStream.range(0, rows).mapToObj(String::valueOf).toArray(String[]::new);
    Arrays.fill(cells, 0, mistakes, "about");
    assertThat(of(cells).form()).isEqualTo(form);
  }

  @Test
  void onlyTheFirstTwentyMistakesAreTold() {
    String[] cells = IntStream.range(0, 1000).mapToObj(String::valueOf).toArray(String[]::new);
    for (int i = 0; i < 30; i++) {
      cells[100 + i] = "about " + "abcdefghijklmnopqrstuvwxyzäöüß".charAt(i);
    }
    ColumnProfile profile = of(cells);
    assertThat(profile.disagreeing()).hasSize(20);
    assertThat(profile.disagreeing().getLast().row()).isEqualTo(120);
    assertThat(profile.agreeing()).isEqualTo(970);
  }

  @Test
  void boundsAreThoseOfTheForm() {
    assertThat(bounds(of("10", "9", "-3"))).containsExactly("-3", "10");
    assertThat(bounds(of("1000000000000000000", "999999999999999999", "5")))
        .containsExactly("5", "1000000000000000000");
    assertThat(bounds(of("1.5", "10", "-2"))).containsExactly("-2", "10");
    assertThat(bounds(of("1.5", "1.50", "1.25"))).containsExactly("1.25", "1.5");
    assertThat(bounds(of("9:05", "18:05", "10:00"))).containsExactly("09:05", "18:05");
    assertThat(bounds(of("moss", "ash", "moss"))).containsExactly("ash", "moss");
    assertThat(bounds(of("", ""))).containsExactly("", "");
    assertThat(of("", "").shortest()).isZero();
    assertThat(of("moss", "as", "a🏺x").shortest()).isEqualTo(2);
    assertThat(of("moss", "as", "a🏺x").longest()).isEqualTo(4);
  }

  private static List<String> bounds(ColumnProfile profile) {
    return List.of(profile.min(), profile.max());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "2147483647 | -2147483648 ! WholeNumber[width=BITS_32]",
        "2147483648 ! WholeNumber[width=BITS_64]",
        "-2147483649 ! WholeNumber[width=BITS_64]",
        "9223372036854775807 | -9223372036854775808 ! WholeNumber[width=BITS_64]",
        "9223372036854775808 ! AnyNumber[]",
        "1.5 | 100 ! Decimal[precision=6, scale=1]",
        "-1.25 | 0 ! Decimal[precision=5, scale=2]",
        "0.123456789012 ! Decimal[precision=15, scale=12]",
        "0.1234567890123 ! AnyNumber[]",
        "123456789012345678901234567890123456.5 ! AnyNumber[]",
        "12345678901234567890123456789012345.5 ! Decimal[precision=38, scale=1]"
      })
  void numbersGetTheTypeThatHoldsThem(String cells, String type) {
    assertThat(of(cells.split(" \\| ")).type()).hasToString(type);
  }

  @Test
  void textsGetHeadRoomAndLongOnesNoLimit() {
    assertThat(of("x".repeat(1000)).type()).isEqualTo(new FieldType.Text(1250));
    assertThat(of("x".repeat(1001)).type()).isEqualTo(new FieldType.LongText());
    assertThat(of("", "").type()).isEqualTo(new FieldType.Text(40));
    assertThat(of("mara@kiln").type()).isEqualTo(new FieldType.Email(15));
  }

  @Test
  void aShortFixedListComesFourTimesALookupThrice() {
    assertThat(of(times(8, "moss", "ash")).choices()).isTrue();
    assertThat(of(times(7, "moss", "ash")).choices()).isFalse();
    assertThat(of(times(6, "moss", "ash")).lookup()).isTrue();
    assertThat(of(times(5, "moss", "ash")).lookup()).isFalse();
    assertThat(of(times(9, "moss")).choices()).isFalse();
    assertThat(of(times(9, "moss")).lookup()).isFalse();
    assertThat(of(times(8, "1", "2")).choices()).isFalse();
    assertThat(of(times(8, "1", "2")).lookup()).isFalse();
    String[] twelve =
        IntStream.range(0, 13).mapToObj(i -> "g" + (char) ('a' + i)).toArray(String[]::new);
    assertThat(of(times(48, Arrays.copyOf(twelve, 12))).choices()).isTrue();
    assertThat(of(times(52, twelve)).choices()).isFalse();
    String[] many =
        IntStream.range(0, 201).mapToObj(i -> "glaze " + i + "x").toArray(String[]::new);
    assertThat(of(times(600, Arrays.copyOf(many, 200))).lookup()).isTrue();
    assertThat(of(times(603, many)).lookup()).isFalse();
  }

  @Test
  void aColumnWithoutRowsIsNeitherWholeNorUnique() {
    EncodedColumn none = EncodedTable.of("t", List.of("Note"), List.of()).columns().getFirst();
    assertThat(ColumnProfile.of(none).complete()).isFalse();
    assertThat(ColumnProfile.of(none).unique()).isFalse();
    assertThat(of("a", "b").complete()).isTrue();
    assertThat(of("a", "").complete()).isFalse();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "Peak  °C ! Peak °C",
        "order.lines.item_no ! Order lines item no",
        "12.5 kg ! 12.5 kg",
        "a. b ! a. b"
      })
  void aHeaderBecomesALabel(String header, String label) {
    assertThat(named(header, "x").field(Set.of()).label()).isEqualTo(label);
  }

  @Test
  void aProposedFieldIsRequiredWhereItIsFilledAndGetsAFreeName() {
    Field field = named("  ", "x").field(Set.of("field"));
    assertThat(List.of(field.label(), field.name())).containsExactly("Field", "field_2");
    assertThat(field.required()).isTrue();
    assertThat(named("Note", "x", "").field(Set.of()).required()).isFalse();
  }

  @Test
  void frequentValuesAreCountedMostFrequentFirstThenByText() {
    assertThat(of("moss", "ash", "moss", "clay", "").frequent())
        .containsExactly(
            java.util.Map.entry("moss", 2L),
            java.util.Map.entry("ash", 1L),
            java.util.Map.entry("clay", 1L));
    String[] most = IntStream.range(0, 256).mapToObj(i -> "g" + i).toArray(String[]::new);
    ColumnProfile full = of(times(512, most));
    assertThat(full.frequent())
        .hasSize(256)
        .allSatisfy((text, count) -> assertThat(count).isEqualTo(2));
    String[] more = IntStream.range(0, 257).mapToObj(i -> "g" + i).toArray(String[]::new);
    assertThat(of(times(600, more)).frequent()).isEmpty();
  }

  @Test
  void hashesOfDifferentTextsDifferAndDependOnEveryCharacter() {
    Set<Long> hashes = new HashSet<>();
    for (int i = 0; i < 20_000; i++) {
      char[] chars = ("piece " + i).toCharArray();
      hashes.add(DistinctTexts.hash(chars, 0, chars.length));
    }
    assertThat(hashes).hasSize(20_000).doesNotContain(0L);
    char[] text = "xmossy".toCharArray();
    char[] other = "zmosst".toCharArray();
    assertThat(DistinctTexts.hash(text, 1, 4)).isEqualTo(DistinctTexts.hash(other, 1, 4));
    assertThat(DistinctTexts.hash(text, 1, 4)).isNotEqualTo(DistinctTexts.hash(text, 1, 5));
    assertThat(DistinctTexts.hash(text, 0, 4)).isNotEqualTo(DistinctTexts.hash(text, 1, 4));
  }

  @Test
  void everyHashKeepsItsMarkUpToTheLimit() {
    var texts = new DistinctTexts(100);
    var hashes = new ArrayList<Long>();
    for (int i = 0; i < 100; i++) {
      long hash = (i + 1L) << 32 | i % 4 * 5 + 60; // Many begin at one place, near the end.
      hashes.add(hash);
      assertThat(texts.markOf(hash)).isEqualTo(-1);
      texts.add(hash, i * 2);
    }
    for (int i = 0; i < 100; i++) {
      assertThat(texts.markOf(hashes.get(i))).isEqualTo(i * 2);
    }
    assertThat(texts.exact()).isTrue();
    assertThat(texts.count()).isEqualTo(100);
    texts.add(-1, 3);
    assertThat(texts.exact()).isFalse();
    assertThat(texts.markOf(-1)).as("no longer kept").isEqualTo(-1);
    assertThat(texts.count()).isGreaterThanOrEqualTo(100);
  }

  /** The estimate has a standard error of 0.8 %; four of these are allowed here. */
  @ParameterizedTest
  @CsvSource({"60000", "500000"})
  void beyondTheLimitTheCountIsEstimated(int different) {
    var texts = new DistinctTexts(10_000);
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(1);
    for (int i = 0; i < different; i++) {
      texts.add(random.nextLong(), 1);
    }
    assertThat(texts.count()).isBetween((long) (different * 0.968), (long) (different * 1.032));
  }

  @Test
  void setsOfColumnsAreKeptInOneBlock() {
    var sets = new ColumnSets(70);
    long[][] bits = new long[100][];
    for (int i = 0; i < 100; i++) {
      bits[i] = new long[] {1L << i % 64, i % 5};
      assertThat(sets.add(bits[i])).isEqualTo(i);
    }
    long[] copy = new long[2];
    for (int i = 0; i < 100; i++) {
      sets.copy(i, copy);
      assertThat(copy).isEqualTo(bits[i]);
      assertThat(sets.contains(i, i % 64)).isTrue();
      assertThat(sets.contains(i, (i + 1) % 64)).isFalse();
      assertThat(sets.contains(i, 64)).isEqualTo(i % 5 % 2 == 1);
      assertThat(sets.shared(i, new long[] {-1, -1})).isEqualTo(1 + Long.bitCount(i % 5));
    }
  }

  @Test
  void aDependencyKnowsItsErrorAndAnInclusionItsCoverage() {
    var held = new FoundDependency(joiner.dependency.AttributeSet.of(0), 1, 3);
    assertThat(held.error(12)).isEqualTo(0.25);
    assertThat(held.error(0)).isZero();
    var inclusion =
        new FoundInclusion(
            0, List.of(0), 1, List.of(0), 20, 5, List.of("x"), FoundInclusion.Reading.EXACT, true);
    assertThat(inclusion.coverage()).isEqualTo(0.75);
  }
}
