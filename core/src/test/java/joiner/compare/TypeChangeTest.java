package joiner.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import joiner.Tries;
import joiner.expression.Width;
import joiner.model.FieldType;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;
import org.junit.jupiter.api.Test;

class TypeChangeTest {
  private static final List<FieldType> TYPES =
      List.of(
          new FieldType.Text(3),
          new FieldType.Text(25),
          new FieldType.LongText(),
          new FieldType.WholeNumber(Width.BITS_16),
          new FieldType.WholeNumber(Width.BITS_64),
          new FieldType.Counter(Width.BITS_32),
          new FieldType.Decimal(5, 0),
          new FieldType.Decimal(12, 2),
          new FieldType.Money(6, 2),
          new FieldType.Decimal(38, 4),
          new FieldType.AnyNumber(),
          new FieldType.TrueFalse(),
          new FieldType.Date(),
          new FieldType.Time(),
          new FieldType.DateTime(false),
          new FieldType.DateTime(true),
          new FieldType.Uuid(),
          new FieldType.Email(25),
          new FieldType.Phone(25),
          new FieldType.Phone(12),
          FieldType.Choice.of(List.of("raw", "fired")),
          FieldType.Choice.of(List.of("raw", "fired", "glazed")));

  private static final List<String> VALUES =
      List.of(
          "raw",
          "fired",
          "glazed",
          "7",
          "-32768",
          "32768",
          "2147483647",
          "9223372036854775807",
          "0.5",
          "12.25",
          "999999.99",
          "0.0001",
          "99999",
          "true",
          "2026-03-14",
          "09:30:00",
          "2026-03-14T09:30:00",
          "2026-03-14T09:30:00Z",
          "ada@saltmarsh.example",
          "+44 1797 000000",
          "123e4567-e89b-12d3-a456-426614174000",
          "a long note about the kiln");

  private static boolean fits(String text, FieldType type) {
    int length = text.codePointCount(0, text.length());
    return ValueReader.read(text, type) instanceof ReadValue.Fits
        && length <= type.length().orElse(Integer.MAX_VALUE)
        && !(type instanceof FieldType.Choice choice && !choice.values().contains(text));
  }

  /** The law, against the reader of values, which knows nothing of changes of type. */
  @Test
  void aTypeThatTakesAllOfAnotherTakesEachOfItsValues() {
    for (FieldType before : TYPES) {
      for (FieldType after : TYPES) {
        if (TypeChange.takesAll(before, after)) {
          assertThat(VALUES)
              .filteredOn(value -> fits(value, before))
              .allMatch(value -> fits(value, after), before + " to " + after);
        }
      }
    }
    Tries.of(2_000)
        .mapToObj(Random::new)
        .forEach(
            random -> {
              int precision = 1 + random.nextInt(9);
              var before = new FieldType.Decimal(precision, random.nextInt(precision + 1));
              int other = 1 + random.nextInt(9);
              var after = new FieldType.Decimal(other, random.nextInt(other + 1));
              String value = "9".repeat(Math.max(1, precision - before.scale()));
              value = before.scale() == precision ? "0" : value;
              value += before.scale() == 0 ? "" : "." + "9".repeat(before.scale());
              assertThat(fits(value, before)).isTrue();
              assertThat(TypeChange.takesAll(before, after))
                  .as(before + " to " + after)
                  .isEqualTo(fits(value, after));
            });
  }

  @Test
  void everyTypeTakesAllOfItself() {
    assertThat(TYPES).allMatch(type -> TypeChange.takesAll(type, type));
    assertThat(IntStream.range(0, TYPES.size()))
        .allMatch(i -> TypeChange.risk(TYPES.get(i), TYPES.get(i)) == Risk.REWRITES);
  }

  @Test
  void digitsBehindThePointThatHaveNoPlaceAreLost() {
    assertThat(TypeChange.risk(new FieldType.Decimal(12, 2), new FieldType.Decimal(12, 1)))
        .isEqualTo(Risk.LOSES);
    assertThat(TypeChange.risk(new FieldType.Money(6, 2), new FieldType.WholeNumber(Width.BITS_64)))
        .isEqualTo(Risk.LOSES);
    assertThat(TypeChange.risk(new FieldType.Decimal(12, 2), new FieldType.Text(40)))
        .isEqualTo(Risk.REFUSES);
    assertThat(TypeChange.risk(new FieldType.Text(40), new FieldType.Text(20)))
        .isEqualTo(Risk.REFUSES);
    assertThat(TypeChange.risk(new FieldType.Email(20), new FieldType.Text(20)))
        .isEqualTo(Risk.REWRITES);
  }
}
