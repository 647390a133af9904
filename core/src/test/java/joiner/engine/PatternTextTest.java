package joiner.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import joiner.RandomPatterns;
import joiner.Tries;
import joiner.shape.TextPattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Patterns in the words of engines. */
class PatternTextTest {
  private static TextPattern read(String pattern) {
    return ((TextPattern.Read.Understood) TextPattern.of(pattern)).pattern();
  }

  /**
   * A law, with the regular expressions of the JDK as the judge: what is written means the same.
   */
  @Test
  void whatIsWrittenForJavaMatchesTheSameTexts() {
    int written = 0;
    int matched = 0;
    for (long seed : Tries.of(2_000).toArray()) {
      var patterns = new RandomPatterns(seed);
      String pattern = patterns.next();
      if (!(TextPattern.of(pattern) instanceof TextPattern.Read.Understood understood)) {
        continue;
      }
      Optional<String> java = java(understood.pattern());
      if (java.isEmpty()) {
        continue;
      }
      written++;
      Pattern judge = Pattern.compile(java.get());
      var texts = new ArrayList<>(List.of("", "a", "K", "7", "\n"));
      for (int i = 0; i < 25; i++) {
        texts.add(patterns.text());
      }
      for (String text : texts) {
        boolean expected = understood.pattern().matches(text);
        matched += expected ? 1 : 0;
        assertThat(judge.matcher(text).find())
            .as("%s as %s on “%s”", pattern, java.get(), text)
            .isEqualTo(expected);
      }
    }
    assertThat(written).isPositive();
    assertThat(matched).isGreaterThan(written / 2);
  }

  private static Optional<String> java(TextPattern pattern) {
    try {
      return Optional.of(PatternText.whole(pattern.tree(), PatternText.Flavour.JAVA, "\\A", "\\z"));
    } catch (InexpressibleException e) {
      return Optional.empty();
    }
  }

  private static String said(Dialect dialect, String pattern) {
    return switch (dialect.sayPattern("mark", read(pattern))) {
      case Support.Kept kept -> kept.sql();
      case Support.Impossible impossible -> "not: " + impossible.loss();
    };
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "P-[0-9]{4}; mark ~ '^P-[0-9]{4}$'",
        "\\d+; mark ~ '^[0-9]+$'",
        "low|high; mark ~ '^(?:low|high)$'",
        "^a.b$; mark ~ '^a[^\\u000A]b$'",
        "(?i)ab?; mark ~ '^[Aa][Bb]?$'",
        "(ab)*c; mark ~ '^(?:ab)*c$'",
        "(?s).; mark ~ '^.$'",
        "a{2,}b{3}c{0,1}; mark ~ '^a{2,}b{3}c?$'",
        "[]^a-]; mark ~ '^[\\-\\]\\^a]$'"
      })
  void patternsForPostgreSql(String pattern, String sql) {
    assertThat(said(Dialects.POSTGRESQL, pattern)).isEqualTo(sql);
  }

  @Test
  void propertiesAreWrittenWhereTheEngineKnowsThem() {
    assertThat(said(Dialects.H2, "\\p{L}+\\PN"))
        .isEqualTo("REGEXP_LIKE(mark, '\\A\\p{L}+\\P{N}\\z')");
    assertThat(said(Dialects.MARIADB, "\\p{Lu}")).isEqualTo("mark REGEXP '\\A\\p{Lu}\\z'");
    assertThat(said(Dialects.DUCKDB, "\\p{Greek}"))
        .isEqualTo("regexp_full_match(mark, '\\p{Greek}')");
    assertThat(said(Dialects.POSTGRESQL, "\\p{L}")).startsWith("not: PostgreSQL knows no prop");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {"\\bx", "\\Bx", "(?m)^a$", "a(?:^b)", "\\p{Greek}", "(?i)\\p{L}", "\\012"})
  void whatMeansDifferentThingsIsNotWritten(String pattern) {
    assertThat(said(Dialects.H2, pattern)).startsWith("not: ");
    assertThat(said(Dialects.POSTGRESQL, pattern)).startsWith("not: ");
    assertThat(said(Dialects.MARIADB, pattern)).startsWith("not: ");
  }

  @Test
  void countsHaveLimits() {
    assertThat(said(Dialects.POSTGRESQL, "a{0,255}")).isEqualTo("mark ~ '^a{0,255}$'");
    assertThat(said(Dialects.POSTGRESQL, "a{0,300}")).startsWith("not: PostgreSQL repeats");
    assertThat(said(Dialects.H2, "a{0,300}")).isEqualTo("REGEXP_LIKE(mark, '\\Aa{0,300}\\z')");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "P-[0-9]{4}; P-[0-9][0-9][0-9][0-9]",
        "\\d{2}/\\d; [0-9][0-9]/[0-9]",
        "[A-Z]x{3}; [A-Z]xxx",
        "a_b%; a[_]b[%]",
        "[^0-9]a; [^0-9]a",
        "a\\.b]; a.b]"
      })
  void placesOfCharactersAreLikeForSqlServer(String pattern, String like) {
    assertThat(said(Dialects.SQL_SERVER, pattern)).isEqualTo("mark LIKE N'" + like + "'");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "[a-z]+",
        "(a|b)",
        "a?",
        "[0-9]{2,4}",
        "x*",
        "a{300}",
        "[^]]",
        "[a\\]]",
        "\\p{L}",
        "é[à-ü]"
      })
  void whatHasSeveralLengthsOrSignsOfItsOwnIsNot(String pattern) {
    assertThat(said(Dialects.SQL_SERVER, pattern)).startsWith("not: ");
  }

  @Test
  void posixHasNoEscapesWithinBrackets() {
    assertThat(said(Dialects.ORACLE, "(low|high)-[a\\]\\-]"))
        .isEqualTo("REGEXP_LIKE(mark, '^(low|high)-[]a-]$')");
    assertThat(said(Dialects.ORACLE, "[\\^a]")).isEqualTo("REGEXP_LIKE(mark, '^[a^]$')");
    assertThat(said(Dialects.ORACLE, "(?s).")).startsWith("not: ");
    assertThat(said(Dialects.ORACLE, "\\t")).startsWith("not: ");
    assertThat(said(Dialects.ORACLE, "[!-\\]]")).isEqualTo("REGEXP_LIKE(mark, '^[]!-,.-\\-]$')");
    assertThat(said(Dialects.ORACLE, "[\\^-]")).isEqualTo("REGEXP_LIKE(mark, '^[-^]$')");
  }
}
