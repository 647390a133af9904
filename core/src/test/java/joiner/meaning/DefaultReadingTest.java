package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.model.Field;
import joiner.model.FieldType;
import org.junit.jupiter.api.Test;

class DefaultReadingTest {
  private static final Checked NOTHING = new Formula("NULL").constant();

  private static Field field(FieldType type) {
    return Field.of("held", "Held", type);
  }

  private static List<String> formulas(FieldType type, String typed) {
    return DefaultReading.of(field(type), typed).stream()
        .map(reading -> reading.value().map(Formula::text).orElse("–"))
        .toList();
  }

  @Test
  void theClockIsMeantByTodayAndNow() {
    assertThat(formulas(new FieldType.Date(), "tod")).startsWith("CURRENT_DATE");
    assertThat(formulas(new FieldType.Date(), "now")).startsWith("CURRENT_DATE");
    assertThat(formulas(new FieldType.DateTime(false), "now")).startsWith("LOCALTIMESTAMP");
    assertThat(formulas(new FieldType.DateTime(true), "now")).startsWith("CURRENT_TIMESTAMP");
  }

  @Test
  void aBareWordIsTheTextOfATextField() {
    assertThat(formulas(new FieldType.Text(20), "Unknown")).containsExactly("'Unknown'", "Unknown");
    assertThat(formulas(new FieldType.Text(20), "today")).startsWith("'today'");
    assertThat(formulas(new FieldType.Text(20), "Potter's")).startsWith("'Potter''s'");
  }

  @Test
  void whatIsTypedAsSqlIsThat() {
    assertThat(formulas(new FieldType.Text(20), "'Unknown'")).startsWith("'Unknown'");
    assertThat(formulas(new FieldType.Date(), "CURRENT_DATE + INTERVAL '7' DAY"))
        .containsExactly("CURRENT_DATE + INTERVAL '7' DAY");
    assertThat(formulas(new FieldType.WholeNumber(Width.BITS_16), "60 * 2"))
        .containsExactly("60 * 2");
  }

  @Test
  void valuesAreWrittenAsTheirTypeWantsThem() {
    assertThat(formulas(new FieldType.Date(), "2026-03-14")).startsWith("DATE '2026-03-14'");
    assertThat(formulas(new FieldType.WholeNumber(Width.BITS_16), "120")).containsExactly("120");
    assertThat(formulas(new FieldType.TrueFalse(), "t")).startsWith("TRUE");
    assertThat(formulas(new FieldType.Text(20), "120")).startsWith("'120'");
  }

  @Test
  void choicesAreOfferedAndNothingElseIsATextOfThem() {
    FieldType surface = FieldType.Choice.of(List.of("gloss", "satin", "matt"));
    assertThat(formulas(surface, "")).containsExactly("–", "'gloss'", "'satin'", "'matt'");
    assertThat(formulas(surface, "ma")).containsExactly("'matt'", "ma");
    assertThat(formulas(surface, "SATIN")).startsWith("'satin'");
  }

  @Test
  void theDefaultAFieldHasIsSaidAsPeopleSayIt() {
    assertThat(said(new FieldType.Date(), "CURRENT_DATE")).isEqualTo("today");
    assertThat(said(new FieldType.Text(9), "'Potter''s'")).isEqualTo("Potter's");
    assertThat(said(new FieldType.TrueFalse(), "FALSE")).isEqualTo("false");
    assertThat(said(new FieldType.Text(9), "nobody")).isEqualTo("nobody");
  }

  private static String said(FieldType type, String formula) {
    Field with = field(type).withDefault(Optional.of(new Formula(formula)));
    return DefaultReading.of(with).orElseThrow().words();
  }

  /** Law: who types what is shown means what is there; and all but formulas are sound. */
  @Test
  void whatIsShownMeansWhatIsThere() {
    Tries.of(300)
        .forEach(
            seed ->
                RandomDesigns.draft(seed).design().tables().stream()
                    .flatMap(table -> table.fields().stream())
                    .forEach(field -> comesBack(field, seed)));
  }

  private static void comesBack(Field field, long seed) {
    for (DefaultReading offered : DefaultReading.of(field, "")) {
      List<DefaultReading> read =
          offered.words().isEmpty() ? List.of(offered) : DefaultReading.of(field, offered.words());
      assertThat(read.getFirst().value()).as("seed %d, %s", seed, field).isEqualTo(offered.value());
      if (offered.sort() != DefaultReading.Sort.FORMULA) {
        assertThat(offered.value().map(Formula::constant).orElse(NOTHING))
            .isInstanceOf(Checked.Sound.class);
      }
      Field with = field.withDefault(offered.value());
      assertThat(DefaultReading.of(with).map(DefaultReading::words).orElse(""))
          .as("seed %d, %s", seed, field)
          .isEqualTo(offered.words());
    }
  }

  @Test
  void whoEntersARowIsOfferedForTexts() {
    Field by = Field.of("entered_by", "Entered by", new FieldType.Text(60));
    for (String typed : List.of("", "me", "the person", "CURRENT_USER", "current_user")) {
      assertThat(DefaultReading.of(by, typed))
          .as(typed)
          .anyMatch(
              reading ->
                  reading.sort() == DefaultReading.Sort.PERSON
                      && reading.value().equals(Optional.of(new Formula("CURRENT_USER"))));
    }
    Field set = by.withDefault(Optional.of(new Formula("CURRENT_USER")));
    assertThat(DefaultReading.of(set).orElseThrow().words()).isEqualTo("the person entering");
    Field choice = Field.of("c", "C", FieldType.Choice.of(List.of("me")));
    assertThat(DefaultReading.of(choice, ""))
        .noneMatch(reading -> reading.sort() == DefaultReading.Sort.PERSON);
  }
}
