package joiner.engine;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Patterns in the words of engines with fewer of them. */
class SimplePatternTest {
  @ParameterizedTest
  @CsvSource({
    "M-[0-9]{4},M-[0-9][0-9][0-9][0-9]",
    "\\d{2}/\\d,[0-9][0-9]/[0-9]",
    "[A-Z]x{3},[A-Z]xxx",
    "a_b,a[_]b",
    "[^0-9]a,[^0-9]a",
    "a\\.b,a.b"
  })
  void placesOfCharactersAreLike(String pattern, String like) {
    assertThat(SimplePattern.asLike(pattern)).contains(like);
    assertThat(SimplePattern.isSimple(pattern)).isTrue();
  }

  @ParameterizedTest
  @ValueSource(strings = {"[a-z]+", "(a|b)", "a?", "[0-9]{2,4}", "x*", "\\d{99}\\d{99}", "a.b"})
  void whatComesInSeveralLengthsIsNot(String pattern) {
    assertThat(SimplePattern.asLike(pattern)).isEmpty();
  }

  @ParameterizedTest
  @ValueSource(strings = {"[A-Z]{2}[0-9]+", "(low|high)-\\d{1,3}", "a*b?", "[0-9]{2,}"})
  void plainFormsAreSimple(String pattern) {
    assertThat(SimplePattern.isSimple(pattern)).isTrue();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {"\\p{L}+", "(?i)kiln", "(?:a)", "[a-z&&[^b]]", "\\bx", "a{0,300}", "a.b", "^a$"})
  void othersAreNot(String pattern) {
    assertThat(SimplePattern.isSimple(pattern)).isFalse();
  }

  @Test
  void enginesSayThemOrTellWhyNot() {
    assertThat(Dialects.ORACLE.sayPattern("mark", "P-[0-9]{4}"))
        .isEqualTo(new Support.Kept("REGEXP_LIKE(mark, '^(P-[0-9]{4})$')"));
    assertThat(Dialects.SQL_SERVER.sayPattern("mark", "P-[0-9]{4}"))
        .isEqualTo(new Support.Kept("mark LIKE N'P-[0-9][0-9][0-9][0-9]'"));
    assertThat(Dialects.ORACLE.sayPattern("mark", "\\p{L}+"))
        .isInstanceOf(Support.Impossible.class);
    assertThat(Dialects.SQL_SERVER.sayPattern("mark", "[a-z]+"))
        .isInstanceOf(Support.Impossible.class);
  }
}
