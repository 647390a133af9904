package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Width;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldType;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How cells spell values, by the properties of Table Schema (version 2). */
class CellFormTest {
  private static final Path FILE = Path.of("datapackage.json");

  private static CellForm form(FieldType type, List<String> missing, String... properties)
      throws UnreadableFileException {
    Map<String, String> extras = new LinkedHashMap<>();
    for (int i = 0; i < properties.length; i += 2) {
      extras.put(properties[i], properties[i + 1]);
    }
    Field field = Field.of("x", "X", type).withExtras(new Extras(extras));
    return CellForm.of(field, missing, FILE);
  }

  private static CellForm form(FieldType type, String... properties)
      throws UnreadableFileException {
    return form(type, List.of(""), properties);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "1.234,5|1234.5|true",
        "1234,5|1234.5|true",
        "-7|-7|true",
        "1.234.567|1234567|true",
        "12,5,1|12,5,1|false",
        "x|x|false",
        "1,5e3|1.5e3|true",
        ",5|.5|true"
      })
  void numbersWithAnotherDecimalMark(String cell, String value, boolean hasForm) throws Exception {
    CellForm form = form(new FieldType.Decimal(9, 2), "decimalChar", "\",\"", "groupChar", "\".\"");
    assertThat(form.read(cell)).isEqualTo(value);
    assertThat(form.hasForm(cell)).isEqualTo(hasForm);
  }

  @Test
  void aPointThatIsNoDecimalMarkIsNoNumber() throws Exception {
    CellForm form = form(new FieldType.AnyNumber(), "decimalChar", "\",\"");
    assertThat(form.hasForm("1.5")).isFalse();
    assertThat(form.hasForm("1,5")).isTrue();
    assertThat(form.write(Optional.of("1.5"))).contains("1,5");
    assertThat(form.write(Optional.of("many"))).contains("many");
    assertThat(form.write(Optional.empty())).contains("");
  }

  @Test
  void signsAroundANumberThatIsNotBare() throws Exception {
    for (FieldType type :
        List.of(
            new FieldType.Money(9, 2),
            new FieldType.Decimal(9, 2),
            new FieldType.AnyNumber(),
            new FieldType.WholeNumber(Width.BITS_32),
            new FieldType.Counter(Width.BITS_32))) {
      CellForm form = form(type, "bareNumber", "false");
      assertThat(form.read("€ 12.50")).isEqualTo("12.50");
      assertThat(form.read("-12 %")).isEqualTo("-12");
      assertThat(form(type, "bareNumber", "true")).isSameAs(CellForm.OWN);
      assertThat(form(type, "decimalChar", "\".\"")).isSameAs(CellForm.OWN);
      assertThat(form(type, "trueValues", "[\"y\"]")).as("of truth only").isSameAs(CellForm.OWN);
    }
    assertThat(form(new FieldType.Text(9), "decimalChar", "\",\"")).isSameAs(CellForm.OWN);
  }

  @Test
  void wordsForTrueAndFalse() throws Exception {
    CellForm form =
        form(new FieldType.TrueFalse(), "trueValues", "[\"yes\",\"y\"]", "falseValues", "[\"no\"]");
    assertThat(form.read("y")).isEqualTo("true");
    assertThat(form.read("no")).isEqualTo("false");
    assertThat(form.read("true")).isEqualTo("true");
    assertThat(form.hasForm("true")).isFalse();
    assertThat(form.hasForm("yes")).isTrue();
    assertThat(form.write(Optional.of("true"))).contains("yes");
    assertThat(form.write(Optional.of("false"))).contains("no");
    assertThat(form.write(Optional.of("maybe"))).contains("maybe");
    CellForm onlyTrue = form(new FieldType.TrueFalse(), "trueValues", "[\"x\"]");
    assertThat(onlyTrue.read("x")).isEqualTo("true");
    assertThat(onlyTrue.write(Optional.of("false"))).contains("false");
    CellForm onlyFalse = form(new FieldType.TrueFalse(), "falseValues", "[\"o\"]");
    assertThat(onlyFalse.read("o")).isEqualTo("false");
    assertThat(form(new FieldType.TrueFalse())).isSameAs(CellForm.OWN);
  }

  @Test
  void whatMeansNoValue() throws Exception {
    CellForm dash = form(new FieldType.Text(9), List.of("-", "n/a"));
    assertThat(dash.read("-")).isNull();
    assertThat(dash.read("n/a")).isNull();
    assertThat(dash.read("")).isEmpty();
    assertThat(dash.hasForm("-")).isTrue();
    assertThat(dash.tellsEmptyFromMissing()).isTrue();
    assertThat(dash.write(Optional.empty())).contains("-");
    assertThat(dash.write(Optional.of("-"))).as("would be read as no value").isEmpty();
    assertThat(dash.write(Optional.of("a"))).contains("a");
    CellForm both = form(new FieldType.Text(9), List.of("-", ""));
    assertThat(both.write(Optional.empty())).contains("");
    assertThat(both.tellsEmptyFromMissing()).isFalse();
    CellForm none = form(new FieldType.Text(9), List.of());
    assertThat(none.read("")).isEmpty();
    assertThat(none.write(Optional.empty())).contains("");
    CellForm own =
        form(
            new FieldType.Text(9),
            List.of("-"),
            "missingValues",
            "[\"?\",{\"value\":\"!\",\"label\":\"none\"}]");
    assertThat(own.read("-")).isEqualTo("-");
    assertThat(own.read("?")).isNull();
    assertThat(own.read("!")).isNull();
    assertThat(form(new FieldType.Text(9))).isSameAs(CellForm.OWN);
    assertThatThrownBy(() -> form(new FieldType.Text(9), "missingValues", "[7]"))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("missingValues");
  }

  @Test
  void datesAndTimesInFormatsOfTheirOwn() throws Exception {
    CellForm day = form(new FieldType.Date(), "format", "\"%d.%m.%Y\"");
    assertThat(day.read("14.03.2026")).isEqualTo("2026-03-14");
    assertThat(day.hasForm("2026-03-14")).isFalse();
    assertThat(day.write(Optional.of("2026-03-14"))).contains("14.03.2026");
    assertThat(day.write(Optional.of("soon"))).contains("soon");
    CellForm time = form(new FieldType.Time(), "format", "\"%H.%M\"");
    assertThat(time.read("18.05")).isIn("18:05", "18:05:00");
    CellForm moment = form(new FieldType.DateTime(false), "format", "\"%d/%m/%y %H:%M\"");
    assertThat(moment.read("14/03/26 18:05")).startsWith("2026-03-14T18:05");
    assertThat(form(new FieldType.Date(), "format", "\"default\"")).isSameAs(CellForm.OWN);
    assertThat(form(new FieldType.Date(), "format", "\"any\"")).isSameAs(CellForm.OWN);
    assertThat(form(new FieldType.Text(9), "format", "\"%d\"")).isSameAs(CellForm.OWN);
    assertThatThrownBy(() -> form(new FieldType.Date(), "format", "\"%Q\""))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("the format “%Q” of the field x");
  }

  @Test
  void formsAreKnownFromOtherProperties() {
    var extras =
        new Extras(
            Map.of(
                "format",
                "\"%d\"",
                "decimalChar",
                "\",\"",
                "trueValues",
                "[]",
                "missingValues",
                "[]",
                "rdfType",
                "\"x\""));
    assertThat(CellForm.withoutForms(extras).byProperty()).containsOnlyKeys("rdfType");
    assertThat(CellForm.withoutForms(new Extras(Map.of("format", "\"email\""))).byProperty())
        .containsOnlyKeys("format");
    assertThat(CellForm.understands("format", "\"email\"")).isFalse();
    assertThat(CellForm.understands("falseValues", "[]")).isTrue();
    assertThat(CellForm.isCarriedBy(new FieldType.Text(9), "rdfType", "\"x\"")).isTrue();
    assertThat(CellForm.isCarriedBy(new FieldType.Text(9), "format", "\"%d\"")).isFalse();
    assertThat(CellForm.isCarriedBy(new FieldType.Time(), "format", "\"%H\"")).isTrue();
    assertThat(CellForm.isCarriedBy(new FieldType.DateTime(true), "format", "\"%H\"")).isTrue();
    assertThat(CellForm.isCarriedBy(new FieldType.Text(9), "format", "\"email\"")).isTrue();
  }
}
