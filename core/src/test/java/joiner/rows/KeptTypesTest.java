package joiner.rows;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Lexical forms of the types of Table Schema (version 2) that are kept as text. */
class KeptTypesTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      value = {
        "year ~ 2026 ~ true",
        "year ~ 26 ~ false",
        "year ~ -0044 ~ true",
        "yearmonth ~ 2026-12 ~ true",
        "yearmonth ~ 2026-13 ~ false",
        "duration ~ P1DT2H ~ true",
        "duration ~ PT0.5S ~ true",
        "duration ~ P ~ false",
        "duration ~ P1DT ~ false",
        "geopoint ~ 90.50, 45.50 ~ true",
        "geopoint ~ 90.50 ~ false",
        "object ~ {\"a\":1} ~ true",
        "object ~ {} ~ true",
        "object ~ {} {} ~ false",
        "object ~ [1] ~ false",
        "object ~ {\"a\":1 ~ false",
        "object ~ {\"a\":} ~ false",
        "geojson ~ {\"type\":\"Point\"} ~ true",
        "geojson ~ text ~ false",
        "array ~ [1,[2]] ~ true",
        "array ~ {\"a\":1} ~ false",
        "array ~ [1] 2 ~ false",
        "other ~ anything ~ true"
      })
  void aTextFitsOrDoesNot(String type, String text, boolean fits) {
    assertThat(KeptTypes.read(text, type) instanceof ReadValue.Fits).isEqualTo(fits);
  }
}
