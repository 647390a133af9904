package joiner.rows;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.Pottery;
import joiner.expression.Evaluator;
import joiner.expression.Formula;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.RowLabels;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.OwnField;
import joiner.model.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Texts as values: lexical forms of Table Schema, version 2 (from memory), dates of ISO 8601. */
class ValueReaderTest {
  private static Arguments type(FieldType type, List<String> fit, List<String> unfit) {
    return Arguments.of(type, fit, unfit);
  }

  static List<Arguments> types() {
    return List.of(
        type(new FieldType.Text(3), List.of("a", "longer than it may be", " "), List.of()),
        type(
            new FieldType.WholeNumber(Width.BITS_16),
            List.of("0", "-32768", "32767", "+5", "007"),
            List.of("32768", "-32769", "1.0", "", "1e3", "kiln", "--1")),
        type(
            new FieldType.WholeNumber(Width.BITS_32), List.of("2147483647"), List.of("2147483648")),
        type(
            new FieldType.WholeNumber(Width.BITS_64),
            List.of("9223372036854775807", "-9223372036854775808"),
            List.of("9223372036854775808")),
        type(new FieldType.Counter(Width.BITS_16), List.of("1"), List.of("99999")),
        type(
            new FieldType.Decimal(5, 2),
            List.of("999.99", "-999.99", "0", "1.50", ".5", "5.", "1e2", "999.990"),
            List.of("1000", "0.001", "1,5", "x")),
        type(new FieldType.Money(4, 1), List.of("999.9"), List.of("1000", "0.05")),
        type(new FieldType.AnyNumber(), List.of("1e99", "-0.0001"), List.of("one", "1 2")),
        type(
            new FieldType.TrueFalse(),
            List.of("true", "True", "TRUE", "1", "false", "False", "FALSE", "0"),
            List.of("yes", "2", "tRUE", "")),
        type(new FieldType.Date(), List.of("2024-02-29"), List.of("2023-02-29", "14.03.2026", "x")),
        type(new FieldType.Time(), List.of("18:05", "18:05:09"), List.of("25:00", "6pm")),
        type(
            new FieldType.DateTime(false),
            List.of("2026-03-14T18:05:00", "2026-03-14T18:05:00Z"),
            List.of("2026-03-14 18:05", "2026-03-14")),
        type(
            new FieldType.DateTime(true),
            List.of("2026-03-14T18:05:00+01:00", "2026-03-14T18:05:00Z"),
            List.of("2026-03-14T18:05:00")),
        type(
            new FieldType.Uuid(),
            List.of("6F9619FF-8B86-4011-B42D-00C04FC964FF"),
            List.of("6f9619ff8b864011b42d00c04fc964ff", "x")),
        type(
            new FieldType.Email(9), List.of("mara@example.org"), List.of("mara", "a b@c", "a@b@c")),
        type(
            new FieldType.WebAddress(9),
            List.of("https://example.org", "mailto:mara@example.org"),
            List.of("example.org", "a b", "x:")));
  }

  @ParameterizedTest
  @MethodSource("types")
  void eachTypeTakesItsFormsAndNoOthers(FieldType type, List<String> fit, List<String> unfit) {
    for (String text : fit) {
      assertThat(ValueReader.read(text, type)).as(text).isInstanceOf(ReadValue.Fits.class);
      assertThat(ValueReader.valueOrNull(Optional.of(text), type)).isNotEqualTo(Value.NULL);
    }
    for (String text : unfit) {
      assertThat(ValueReader.read(text, type))
          .as(text)
          .isInstanceOfSatisfying(
              ReadValue.Unfit.class, u -> assertThat(u.expected()).isNotBlank());
      assertThat(ValueReader.valueOrNull(Optional.of(text), type)).isEqualTo(Value.NULL);
    }
    assertThat(ValueReader.valueOrNull(Optional.empty(), type)).isEqualTo(Value.NULL);
  }

  @Test
  void spellingsOfOneValueAreOneValue() {
    var decimal = new FieldType.Decimal(5, 2);
    assertThat(ValueReader.read("1.50", decimal)).isEqualTo(ValueReader.read("1.5", decimal));
    var uuid = new FieldType.Uuid();
    String mark = "6F9619FF-8B86-4011-B42D-00C04FC964FF";
    assertThat(ValueReader.read(mark, uuid))
        .isEqualTo(ValueReader.read(mark.toLowerCase(java.util.Locale.ROOT), uuid));
    assertThat(ValueReader.read("1", new FieldType.TrueFalse()))
        .isEqualTo(ValueReader.read("true", new FieldType.TrueFalse()));
  }

  @Test
  void keptTypesAreCheckedWhereTheirFormIsKnown() {
    var geo = new FieldType.Kept("geojson");
    assertThat(ValueReader.read("{\"type\": \"Point\"}", geo)).isInstanceOf(ReadValue.Fits.class);
    assertThat(ValueReader.read("{\"type\": ", geo)).isInstanceOf(ReadValue.Unfit.class);
    var year = new FieldType.Kept("year");
    assertThat(ValueReader.read("2026", year)).isInstanceOf(ReadValue.Fits.class);
    assertThat(ValueReader.read("this year", year)).isInstanceOf(ReadValue.Unfit.class);
    assertThat(ValueReader.read("anything", new FieldType.Kept("any")))
        .isInstanceOf(ReadValue.Fits.class);
  }

  private static final Table KILN =
      Table.of("kiln", "Kiln", new Noun("kiln", "kilns"))
          .withFields(
              List.of(
                  Field.of("no", "No", new FieldType.WholeNumber(Width.BITS_16)),
                  Field.of("name", "Name", new FieldType.Text(20))))
          .withPrimaryKey(List.of(new FieldId("no")));
  private static final Rows ROWS =
      Rows.of(
          KILN.fieldIds(),
          List.of(
              List.of(Optional.of("1"), Optional.of("Ember")),
              List.of(Optional.of("2"), Optional.empty()),
              List.of(Optional.empty(), Optional.of("Ash"))));

  @Test
  void aRowIsNamedByItsLabelElseByItsKeyElseByItsPlace() {
    Table labelled = KILN.withRowLabel(Optional.of(new Formula("'Kiln ' || name")));
    RowLabels labels = labels(labelled);
    assertThat(labels.of(0)).isEqualTo("Kiln Ember");
    assertThat(labels.of(1)).isEqualTo("2");
    RowLabels keys = labels(KILN);
    assertThat(keys.of(0)).isEqualTo("1");
    assertThat(keys.of(2)).isEqualTo("row 3");
    Table faulty = KILN.withRowLabel(Optional.of(new Formula("nonsense ||")));
    assertThat(labels(faulty).of(0)).isEqualTo("1");
  }

  private static RowLabels labels(Table table) {
    Design design = Design.empty("d", "D").withTableAdded(table);
    var draft = new Draft(design, new SampleRows(Map.of(table.id(), ROWS)));
    return new RowLabels(
        draft.meaning().of(table), new FormulaRows(draft, Pottery.CLOCK), Pottery.CLOCK);
  }

  @Test
  void typedRowsGiveTheValuesOfTheirFields() {
    var values = new RowValues(KILN, ROWS);
    assertThat(Evaluator.show(values.row(0).apply(OwnField.of(KILN.fields().getFirst()))))
        .isEqualTo("1");
    assertThat(values.row(1).apply(OwnField.of(KILN.fieldNamed("name").orElseThrow())))
        .isEqualTo(Value.NULL);
    assertThat(values.values(KILN.fieldIds().getLast())).hasSize(3);
    var elsewhere = OwnField.of(Field.of("nowhere", "Nowhere", new FieldType.Date()));
    org.assertj.core.api.Assertions.assertThatThrownBy(() -> values.row(0).apply(elsewhere))
        .hasMessageContaining("nowhere");
  }

  @Test
  void anEncodedTableGivesItsTextsBack() {
    EncodedTable encoded = EncodedTable.of(TableRows.of(KILN, ROWS));
    assertThat(encoded.rows()).isEqualTo(3);
    assertThat(encoded.columns()).hasSize(2);
    for (int row = 0; row < 3; row++) {
      for (int column = 0; column < 2; column++) {
        String text = encoded.columns().get(column).text(row);
        assertThat(text).isEqualTo(ROWS.cell(row, KILN.fieldIds().get(column)).orElse(""));
      }
    }
  }

  @Test
  void rowsOfAllTablesAreCountedTogether() {
    SampleRows rows = SampleRows.NONE.with(KILN.id(), none -> ROWS);
    assertThat(rows.count()).isEqualTo(3);
    assertThat(rows.without(KILN.id()).count()).isZero();
    assertThat(rows.of(KILN.id())).isSameAs(ROWS);
  }

  /** SQL's calendar goes from year 1 to 9999; no database holds NUL in a text. */
  @org.junit.jupiter.params.ParameterizedTest
  @org.junit.jupiter.params.provider.CsvSource({
    "0001-01-01,true",
    "9999-12-31,true",
    "0000-12-31,false",
    "+10000-01-01,false",
    "-0001-01-01,false"
  })
  void onlyYearsOfTheCalendarAreTaken(String date, boolean fits) {
    org.assertj.core.api.Assertions.assertThat(
            ValueReader.read(date, new joiner.model.FieldType.Date()) instanceof ReadValue.Fits)
        .isEqualTo(fits);
    org.assertj.core.api.Assertions.assertThat(
            ValueReader.read(date + "T00:00:00", new joiner.model.FieldType.DateTime(false))
                instanceof ReadValue.Fits)
        .isEqualTo(fits);
    org.assertj.core.api.Assertions.assertThat(
            ValueReader.read(date + "T00:00:00Z", new joiner.model.FieldType.DateTime(true))
                instanceof ReadValue.Fits)
        .isEqualTo(fits);
  }

  @org.junit.jupiter.api.Test
  void noTextHoldsNulAndZeroFitsAnyDecimal() {
    org.assertj.core.api.Assertions.assertThat(
            ValueReader.read("a\u0000b", new joiner.model.FieldType.Text(9)))
        .isInstanceOf(ReadValue.Unfit.class);
    for (String zero : java.util.List.of("0", "0.00", "-0", "+0")) {
      org.assertj.core.api.Assertions.assertThat(
              ValueReader.read(zero, new joiner.model.FieldType.Decimal(2, 2)))
          .isInstanceOf(ReadValue.Fits.class);
    }
    org.assertj.core.api.Assertions.assertThat(
            ValueReader.read("1", new joiner.model.FieldType.Decimal(2, 2)))
        .isInstanceOf(ReadValue.Unfit.class);
  }
}
