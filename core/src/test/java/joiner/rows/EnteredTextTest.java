package joiner.rows;

import static org.assertj.core.api.Assertions.assertThat;

import joiner.expression.Width;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.SpanUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EnteredTextTest {
  @ParameterizedTest
  @CsvSource({
    "min, 90, 90",
    "min, 90 min, 90",
    "min, 1:30, 90",
    "min, 1 h 30 min, 90",
    "min, 1h30m, 90",
    "min, 2 h, 120",
    "min, 1.5 h, 90",
    "min, 1:30:20, 1:30:20",
    "min, 90 s, 90 s",
    "min, soon, soon",
    "min, 3 kilns, 3 kilns",
    "min, 1 h later, 1 h later",
    "h, 1:30, 1:30",
    "h, 2 days, 48",
    "s, 0:02:05, 125",
    "d, 48 h, 2",
    "%, 12.5 %, 12.5",
    "%, 12.5%, 12.5",
    "%, 12.5, 12.5",
    "%, much %, much %",
    "°C, 1240 °C, 1240",
    "m, 1:30, 1:30",
    "m, 3 m, 3",
  })
  void whatIsTypedIsReadInTheUnitOfItsField(String unit, String typed, String held) {
    Field field =
        Field.of("lasted", "Lasted", new FieldType.WholeNumber(Width.BITS_32)).withUnit(unit);
    assertThat(EnteredText.of(field, typed)).isEqualTo(held);
  }

  @Test
  void textsAndNumbersWithoutAUnitStayAsTheyAre() {
    Field note = Field.of("note", "Note", new FieldType.Text(20)).withUnit("%");
    assertThat(EnteredText.of(note, "12 %")).isEqualTo("12 %");
    Field count = Field.of("count", "Count", new FieldType.WholeNumber(Width.BITS_32));
    assertThat(EnteredText.of(count, " 1:30")).isEqualTo(" 1:30");
  }

  @Test
  void eachUnitOfTimeIsKnownByItsSign() {
    for (SpanUnit unit : SpanUnit.values()) {
      assertThat(SpanUnit.ofSign(unit.sign())).contains(unit);
      assertThat(SpanUnit.of(unit.sign())).contains(unit);
    }
  }
}
