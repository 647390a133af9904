package joiner.shape;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TextPatternTest {
  private static TextPattern pattern(String expression) {
    assertThat(TextPattern.of(expression)).isInstanceOf(TextPattern.Read.Understood.class);
    return ((TextPattern.Read.Understood) TextPattern.of(expression)).pattern();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      value = {
        "[A-Z]{2}\\d+ ~ KL7 ~ true",
        "[A-Z]{2}\\d+ ~ KL7x ~ false",
        "[A-Z]{2}\\d+ ~ xKL7 ~ false",
        "cone|bisque ~ cone ~ true",
        "cone|bisque ~ cones ~ false",
        "\\p{L}+ ~ Größe ~ true",
        "(?i)kiln ~ KILN ~ true"
      })
  void theWholeTextHasToMatch(String expression, String text, boolean matches) {
    assertThat(pattern(expression).matches(text)).isEqualTo(matches);
  }

  /** Exponential for a matcher that goes back over the text (common practice, no source). */
  @ParameterizedTest
  @ValueSource(strings = {"(.*a){16}", "(a+)+", "(a|a)*b", "(a|b)*"})
  void noPatternTakesLong(String expression) {
    String text = "a".repeat(20_000) + "!";
    assertTimeoutPreemptively(
        Duration.ofSeconds(20), () -> assertThat(pattern(expression).matches(text)).isFalse());
  }

  @ParameterizedTest
  @ValueSource(strings = {"(", "[a", "a**", "(?=x)y", "(x)\\1", "[a-z&&[^b]]", "a{2,1}"})
  void whatCannotBeUsedIsRefusedWithTheReason(String expression) {
    assertThat(TextPattern.of(expression))
        .isInstanceOfSatisfying(
            TextPattern.Read.Refused.class, refused -> assertThat(refused.why()).endsWith("."));
  }

  @Test
  void anExpressionThatMeansNothingMatchesOnlyNothing() {
    assertThat(pattern("").matches("")).isTrue();
    assertThat(pattern("").matches("x")).isFalse();
  }

  @Test
  void theReasonNamesThePieceAndTheRemedy() {
    assertThat(why("(?=x)y")).startsWith("“(?=”").contains("no look-around");
    assertThat(why("[a")).startsWith("“[a”");
    assertThat(why("[a-z&&[^b]]")).startsWith("“&&”").contains("write out");
  }

  private static String why(String expression) {
    return ((TextPattern.Read.Refused) TextPattern.of(expression)).why();
  }

  /** Nested repetitions multiply; a matcher that writes them out would take all memory. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "((a{1000}){1000}){1000}",
        "(a{500}b{500}){999}",
        "(((x{99}){99}){99}){99}",
        "([a-z]{1,900}\\.){1,900}",
        "(\\d{1000}){1000}"
      })
  void whatWouldTakeAllMemoryIsRefused(String expression) {
    assertThat(TextPattern.of(expression))
        .isInstanceOfSatisfying(
            TextPattern.Read.Refused.class,
            refused -> assertThat(refused.why()).contains("places"));
  }

  @Test
  void placesAreCountedAsTheyAreWrittenOut() {
    assertThat(PatternSize.of("")).isZero();
    assertThat(PatternSize.of("M-[0-9]{4}")).isEqualTo(6);
    assertThat(PatternSize.of("(ab){3}c")).isEqualTo(7);
    assertThat(PatternSize.of("((a{9}){9}){9}")).isEqualTo(729);
    assertThat(PatternSize.of("[]a{9}]\\{3}")).isEqualTo(4);
    assertThat(PatternSize.of("(a{2,5}|b{3,})+")).isEqualTo(10);
  }
}
