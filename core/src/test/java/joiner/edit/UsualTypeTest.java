package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.List;
import joiner.meaning.TypeWords;
import joiner.model.Field;
import joiner.model.Limits;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What names say of types. */
class UsualTypeTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Born on|a date",
        "Qty|a whole number of 32 bits",
        "Number of coats|a whole number of 32 bits",
        "Postcode|text of 12",
        "Price paid|'money (10, 2)'",
        "Paid on|a date",
        "Fired at|a date and time",
        "E-mail|an e-mail of 254",
        "WEB ADDRESS|a web address of 200",
        "Address|text of 200",
        "Is food safe|true/false",
        "Serial number|text of 40",
        "Weight of the clay|'a decimal (9, 3)'",
        "Country code|text of 2"
      })
  void aNameSaysWhatItUsuallyIs(String label, String type) {
    assertThat(TypeWords.of(UsualType.of(label).orElseThrow().type())).isEqualTo(type);
  }

  @ParameterizedTest
  @CsvSource({"Kiln", "Atelier", "Updates", "Onset", "Cone", "''", "…"})
  void anotherNameSaysNothing(String label) {
    assertThat(UsualType.of(label)).isEmpty();
  }

  /** Each line of the file is found by its own words, so that none stands there in vain. */
  @Test
  void everyLineTakesItsOwnName() throws Exception {
    assertThat(UsualType.known()).isGreaterThanOrEqualTo(80);
    try (var in =
        new BufferedReader(
            new InputStreamReader(
                UsualType.class.getResourceAsStream("usual-types.txt"), StandardCharsets.UTF_8))) {
      List<String> lines = in.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList();
      assertThat(lines).hasSize(UsualType.known());
      for (String line : lines) {
        String[] parts = line.split("\\|");
        String label = parts[0].strip().replace("…", "x");
        UsualType usual = UsualType.of(label).orElseThrow();
        assertThat(usual.words()).as(line).isEqualTo(parts[0].replace("…", "").strip());
        Field field =
            Field.of("f", label, usual.type())
                .withUnit(usual.unit())
                .withLimits(Limits.NONE.withPattern(usual.pattern()));
        assertThat(TypeChoice.of(field)).as(line).map(Enum::name).contains(parts[1].strip());
        assertThat(usual.reason()).as(line).isEqualTo(parts[3].strip()).isNotBlank();
      }
    }
  }
}
