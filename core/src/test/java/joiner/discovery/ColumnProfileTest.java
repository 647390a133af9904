package joiner.discovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import joiner.discovery.ColumnProfile.Note;
import joiner.expression.Width;
import joiner.model.FieldType;
import joiner.rows.EncodedColumn;
import joiner.rows.ReadValue;
import joiner.rows.ValueForm;
import joiner.rows.ValueReader;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ColumnProfileTest {
  private static ColumnProfile of(String... cells) {
    return ColumnProfile.of(EncodedColumn.of("Column", Arrays.asList(cells)));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "3 | 14 | -7 ! WHOLE ! WholeNumber",
        "1.5 | 2 | 1e3 ! NUMBER_POINT ! Decimal",
        "1,5 | 2 | 1.234,75 ! NUMBER_COMMA ! Decimal",
        "1,234 | 12,345,678 ! NUMBER_POINT ! Decimal",
        "1 234,5 | 7,25 ! NUMBER_COMMA ! Decimal",
        "2026-03-14 | 2026-01-02 ! DATE_ISO ! Date",
        "14/03/2026 | 01/02/2026 ! DATE_DAY_FIRST ! Date",
        "3/14/2026 | 1/2/2026 ! DATE_MONTH_FIRST ! Date",
        "14.03.26 | 1.2.26 ! DATE_DAY_FIRST ! Date",
        "14 Mar 2026 | Jan 2, 2026 ! DATE_NAMED ! Date",
        "2026-03-14 18:05 | 2026-03-14T18:05:09 ! DATE_TIME ! DateTime",
        "14/03/2026 9:05 | 15/03/2026 18:05 ! DATE_TIME_DAY_FIRST ! DateTime",
        "2026-03-14T18:05:00+01:00 | 2026-03-14T18:05:00Z ! DATE_TIME_ZONED ! DateTime",
        "9:05 | 18:05:30 ! TIME ! Time",
        "yes | No ! TRUTH ! TrueFalse",
        "ja | nein | ja ! TRUTH ! TrueFalse",
        "mara@example.org | odo@example.org ! EMAIL ! Email",
        "6f9619ff-8b86-4011-b42d-00c04fc964ff ! UUID ! Uuid",
        "04 | 6 | 10 ! TEXT ! Text",
        "2026-02-30 | 2026-03-14 ! TEXT ! Text",
        "1.2.3 | 4 ! TEXT ! Text",
        "yes | yes ! TEXT ! Text",
        "y | n | maybe ! TEXT ! Text"
      })
  void theFormOfTheValuesGivesTheType(String cells, ValueForm form, String type) {
    ColumnProfile profile = of(cells.split(" \\| "));
    assertThat(profile.form()).isEqualTo(form);
    assertThat(profile.type().getClass().getSimpleName()).isEqualTo(type);
    assertThat(profile.agreeing()).isEqualTo(profile.rows());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "1.234,50 | 2,25 ! 1234.50 | 2.25",
        "14/03/2026 | 1/2/2026 ! 2026-03-14 | 2026-02-01",
        "14.03.69 | 14.03.68 ! 1969-03-14 | 2068-03-14",
        "yes | no ! true | false",
        "9:05 | 18:05 ! 09:05 | 18:05",
        "+7 | 8 ! 7 | 8",
        "14/03/2026 9:05 | 15/03/2026 18:05 ! 2026-03-14T09:05:00 | 2026-03-15T18:05:00"
      })
  void valuesAreWrittenAsTheirTypeWantsThem(String cells, String written) {
    ColumnProfile profile = of(cells.split(" \\| "));
    assertThat(Arrays.stream(cells.split(" \\| ")).map(profile::canonical))
        .containsExactly(written.split(" \\| "));
  }

  @Property(tries = 2000)
  void whatAgreesWithTheProposedTypeReallyFitsIt(
      @ForAll @Size(min = 1, max = 8) List<@StringLength(max = 12) String> cells) {
    ColumnProfile profile = of(cells.toArray(String[]::new));
    var disagreeing = profile.disagreeing().stream().map(ColumnProfile.Disagreeing::text).toList();
    for (String cell : cells) {
      boolean holdsNul = cell.indexOf(0) >= 0; // No type takes it; the audit tells of it.
      if (!cell.isEmpty() && !holdsNul && !disagreeing.contains(cell)) {
        assertThat(ValueReader.read(profile.canonical(cell), profile.type()))
            .as("%s as %s", cell, profile.type())
            .isInstanceOf(ReadValue.Fits.class);
      }
    }
  }

  @Property(tries = 2000)
  void numbersAndDatesOfAnyShapeFitTheirType(
      @ForAll @Size(min = 1, max = 6) List<@net.jqwik.api.From("numberLike") String> cells) {
    ColumnProfile profile = of(cells.toArray(String[]::new));
    if (profile.agreeing() == profile.rows()) {
      for (String cell : cells) {
        assertThat(ValueReader.read(profile.canonical(cell), profile.type()))
            .as("%s as %s", cell, profile.type())
            .isInstanceOf(ReadValue.Fits.class);
      }
    }
  }

  @net.jqwik.api.Provide
  net.jqwik.api.Arbitrary<String> numberLike() {
    return net.jqwik.api.Arbitraries.strings()
        .withChars("0123456789.,-/: T+e")
        .ofMinLength(1)
        .ofMaxLength(19);
  }

  @Test
  void fewExceptionsAmongManyAreNamedWithTheirRows() {
    var cells = new ArrayList<>(IntStream.range(0, 60).mapToObj(String::valueOf).toList());
    cells.set(41, "about 7");
    ColumnProfile profile = of(cells.toArray(String[]::new));
    assertThat(profile.type()).isEqualTo(new FieldType.WholeNumber(Width.BITS_32));
    assertThat(profile.disagreeing()).containsExactly(new ColumnProfile.Disagreeing("about 7", 42));
    assertThat(profile.agreeing()).isEqualTo(59);
  }

  @Test
  void undecidedOrdersOfDayAndMonthAreSaid() {
    assertThat(of("01/02/2026", "03/04/2026").notes()).contains(Note.DAY_FIRST_UNDECIDED);
    assertThat(of("01/02/2026", "13/04/2026").notes()).contains(Note.DAY_ORDER_PROVED);
    assertThat(of("1,234", "5,678").notes()).contains(Note.DECIMAL_UNDECIDED);
    assertThat(of("1,234", "5,67").notes()).doesNotContain(Note.DECIMAL_UNDECIDED);
  }

  @Test
  void leadingZerosKeepNumbersTextual() {
    ColumnProfile profile = of("04", "6", "10");
    assertThat(profile.notes()).contains(Note.LEADING_ZEROS);
    assertThat(profile.min()).isEqualTo("04");
    assertThat(of("0.5", "0").type()).isInstanceOf(FieldType.Decimal.class);
  }

  @Test
  void lengthsBlanksAndBoundsAreWhatIsThere() {
    ColumnProfile profile = of("9", "", "10", "9");
    assertThat(profile.blank()).isEqualTo(1);
    assertThat(profile.distinct()).isEqualTo(2);
    assertThat(List.of(profile.min(), profile.max())).containsExactly("9", "10");
    assertThat(profile.unique()).isFalse();
    ColumnProfile text = of("Ember", "Grün 🜂");
    assertThat(text.longest()).isEqualTo(6);
    assertThat(text.type()).isEqualTo(new FieldType.Text(10));
    assertThat(text.unique()).isTrue();
  }

  private static long hash(String text) {
    return DistinctTexts.hash(text.toCharArray(), 0, text.length());
  }

  @Test
  void moreValuesThanAreKeptAreEstimated() {
    var distinct = new DistinctTexts(1_000);
    for (int i = 0; i < 200_000; i++) {
      long hash = hash("piece " + i % 100_000);
      if (distinct.markOf(hash) < 0) {
        distinct.add(hash, 1);
      }
    }
    assertThat(distinct.exact()).isFalse();
    assertThat(distinct.count()).isBetween(96_000L, 104_000L);
  }
}
