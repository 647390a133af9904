package joiner.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import joiner.RandomPatterns;
import joiner.Tries;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PutRightTest {
  @ParameterizedTest
  @CsvSource({
    "'M-[0-9]{4}', ' M-0048 ', M-0048",
    "'M-[0-9]{4}', m-0048, M-0048",
    "'M-[0-9]{4}', m 0048, M-0048",
    "'M-[0-9]{4}', 0048, M-0048",
    "'M-[0-9]{4}', 48, 48",
    "'[0-9]{2}-[0-9]{3}', 98765, 98-765",
    "'[0-9]{2}-[0-9]{3}', 98 765, 98-765",
    "'[0-9]{2}-[0-9]{3}', 98/765, 98-765",
    "'[0-9]{2}-[0-9]{3}', 9876, 9876",
    "'[A-Z]{2}', de, DE",
    "'[a-z]+', Raku, raku",
    "'[A-Z]{2} [0-9]{2}', 'ab  12', AB 12",
    "'(M|G)-[0-9]', g-1, G-1",
    "'[0-9]{2}', ab, ab",
    "'[', x, x",
  })
  void blanksCaseAndMarksArePutRight(String expression, String typed, String meant) {
    assertThat(PutRight.of(expression, typed)).isEqualTo(meant);
  }

  /** Law: what is put right has the pattern, and all letters and digits that were typed. */
  @Test
  void nothingThatWasTypedIsLost() {
    var right = new AtomicInteger();
    Tries.of(2_000)
        .forEach(
            seed -> {
              var random = new RandomPatterns(seed);
              String expression = random.next();
              for (int i = 0; i < 5; i++) {
                String typed = " " + random.text().toUpperCase(Locale.ROOT);
                String text = PutRight.of(expression, typed);
                if (!text.equals(typed)) {
                  right.incrementAndGet();
                  assertThat(matches(expression, text)).as("%s, %s", expression, typed).isTrue();
                  assertThat(holds(text, typed)).as("%s, %s: %s", expression, typed, text).isTrue();
                }
              }
            });
    assertThat(right.get()).isGreaterThan(100);
  }

  private static boolean matches(String expression, String text) {
    return TextPattern.of(expression) instanceof TextPattern.Read.Understood(var pattern)
        && pattern.matches(text);
  }

  /** Whether a text has the letters and digits of another, in their order. */
  private static boolean holds(String text, String other) {
    String lower = text.toLowerCase(Locale.ROOT);
    int at = 0;
    for (int point : other.toLowerCase(Locale.ROOT).codePoints().toArray()) {
      if (Character.isLetterOrDigit(point)) {
        at = lower.indexOf(Character.toString(point), at);
        if (at < 0) {
          return false;
        }
        at++;
      }
    }
    return true;
  }
}
