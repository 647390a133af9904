package joiner.expression;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import joiner.Formulas;
import joiner.Pottery;
import joiner.model.Table;
import joiner.rows.RowValues;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RuleLanguageTest {
  /** Each leaves the calendar (years −999,999,999 to 999,999,999) or the seconds of a long. */
  @org.junit.jupiter.params.ParameterizedTest
  @org.junit.jupiter.params.provider.ValueSource(
      strings = {
        "DATE '2026-03-14' + INTERVAL '999999999' YEAR > DATE '2026-03-14'",
        "TIMESTAMP '2026-03-14 10:00:00' - INTERVAL '999999999' YEAR < CURRENT_TIMESTAMP"
      })
  void aMomentBeyondTheCalendarIsAnErrorOfTheRowAndNothingElse(String rule) {
    var table = joiner.model.Table.of("kiln", "Kiln", new joiner.model.Noun("kiln", "kilns"));
    if (Formulas.condition(rule, table) instanceof Checked.Sound sound) {
      var evaluator = new Evaluator(java.time.Clock.systemUTC());
      org.assertj.core.api.Assertions.assertThatThrownBy(
              () -> evaluator.evaluate(sound.tree(), reference -> Value.NULL))
          .isInstanceOf(EvaluationException.class);
    }
  }

  @org.junit.jupiter.params.ParameterizedTest
  @org.junit.jupiter.params.provider.CsvSource(
      delimiter = '~',
      value = {
        "today ~ CURRENT_DATE",
        "now ~ CURRENT_TIMESTAMP",
        "yes ~ TRUE",
        "off ~ FALSE",
        "low ~ stands in quotes"
      })
  void aWordAsADefaultIsToldWhatToWrite(String word, String remedy) {
    org.assertj.core.api.Assertions.assertThat(new Formula(word).constant())
        .isInstanceOfSatisfying(
            Checked.Faulty.class,
            faulty ->
                org.assertj.core.api.Assertions.assertThat(faulty.problems().getFirst().message())
                    .contains("“" + word + "”", remedy.strip()));
  }

  private static final Table FIRING = Pottery.firing();

  private static Value verdict(String condition, List<String> row) {
    Checked.Sound sound = (Checked.Sound) Formulas.value(condition, FIRING);
    var values = new RowValues(FIRING, Pottery.rows(FIRING, List.of(row)));
    return new Evaluator(Pottery.CLOCK).evaluate(sound.tree(), values.row(0));
  }

  private static String outcome(String condition, List<String> row) {
    try {
      return verdict(condition, row).toString();
    } catch (EvaluationException e) {
      return e.getMessage();
    }
  }

  private static final List<String> ROW =
      List.of(
          "7",
          "Big Tom",
          "1222",
          "12.50",
          "2026-09-30",
          "2026-09-30T18:05:00",
          "2026-10-01T07:40:00",
          "true");
  private static final List<String> EMPTY = List.of("", "", "", "", "", "", "", "");

  /** Truth tables of ISO/IEC 9075-2, boolean value expression (from memory); U is unknown. */
  @ParameterizedTest
  @CsvSource({
    "T,T,T,T", "T,F,F,T", "T,U,U,T", "F,T,F,T", "F,F,F,F", "F,U,F,U", "U,T,U,T", "U,F,F,U",
    "U,U,U,U"
  })
  void andAndOrFollowTheTruthTablesOfTheStandard(String left, String right, String and, String or) {
    Map<String, String> text = Map.of("T", "1 = 1", "F", "1 = 2", "U", "NULL = 1");
    Map<String, Value> value = Map.of("T", Value.TRUE, "F", Value.FALSE, "U", Value.NULL);
    assertThat(verdict(text.get(left) + " AND " + text.get(right), ROW)).isEqualTo(value.get(and));
    assertThat(verdict(text.get(left) + " OR " + text.get(right), ROW)).isEqualTo(value.get(or));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "ended_at > started_at",
        "peak_c BETWEEN 580 AND 1400",
        "peak_c NOT BETWEEN 1 AND 2",
        "kiln IN ('Big Tom', 'Little Ann')",
        "kiln NOT IN ('Ember')",
        "kiln LIKE 'Big%'",
        "kiln LIKE '_ig T_m'",
        "kiln NOT LIKE 'big%'",
        "'100%' LIKE '100!%' ESCAPE '!'",
        "started_at <= CURRENT_DATE + INTERVAL '14' DAY",
        "day < started_at",
        "glazed",
        "glazed IS NOT FALSE",
        "(NULL = 1) IS UNKNOWN",
        "NOT (peak_c = 1)",
        "7 / 2 = 3",
        "cost / 2 = 6.25",
        "- 3 + 2 * 5 = 7",
        "1 - 2 - 3 = -4",
        "CHAR_LENGTH(kiln) = 7",
        "UPPER(kiln) = 'BIG TOM'",
        "SUBSTRING(kiln FROM 5 FOR 3) = 'Tom'",
        "POSITION('Tom' IN kiln) = 5",
        "TRIM('  a ') || 'b' = 'ab'",
        "CASE WHEN peak_c > 1000 THEN 'hot' ELSE 'warm' END = 'hot'",
        "CASE kiln WHEN 'Ember' THEN 1 ELSE 2 END = 2",
        "COALESCE(NULL, peak_c) = 1222",
        "NULLIF(1, 1) IS NULL",
        "EXTRACT(MONTH FROM day) = 9",
        "CAST(peak_c AS VARCHAR) = '1222'",
        "MOD(7, 3) = 1",
        "FLOOR(2.5) = 2 AND CEILING(2.5) = 3",
        "DATE '2024-02-29' = DATE '2024-02-28' + INTERVAL '1' DAY",
        "TIMESTAMP '2026-09-30 18:05' = started_at"
      })
  void trueOnTheRow(String condition) {
    assertThat(verdict(condition, ROW)).as(condition).isEqualTo(Value.TRUE);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "ended_at > started_at",
        "peak_c = NULL",
        "kiln LIKE '%'",
        "peak_c IN (1, NULL)",
        "NOT (glazed)",
        "peak_c + 1 > 0",
        "kiln || 'x' = 'x'"
      })
  void unknownWhereThePartsAreEmpty(String condition) {
    assertThat(verdict(condition, EMPTY)).as(condition).isEqualTo(Value.NULL);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "peak_c > | 8 | A value was expected",
        "peak_c > 1000 AN glazed | 14 | operator such as AND",
        "peak > 1000 | 0 | did you mean peak_c",
        "peak_c = 'hot' | 0 | Write the number without quotes",
        "day > '2026-01-01' | 0 | DATE '2026-03-14'",
        "peak_c | 0 | Compare it with something",
        "(peak_c > 1 | 11 | never closed",
        "kiln = 'Big | 7 | never closed",
        "peak_c != 3 | 7 | <>",
        "day + 7 > day | 0 | INTERVAL",
        "peak_c IN (SELECT 1) | 11 | its own row",
        "NOW() > day | 0 | no function",
        "DATE '2026-02-30' = day | 5 | does not exist",
        "1 < peak_c < 3 | 11 | two sides",
        "peak_c = 1; DROP TABLE firing | 10 | no meaning here",
        "CHAR_LENGTH() = 1 | 0 | 1 arguments"
      })
  void anErrorPointsAtTheCharacterAndSaysWhatWasExpected(String text, int at, String says) {
    Checked.Faulty faulty = (Checked.Faulty) Formulas.condition(text, FIRING);
    assertThat(faulty.problems().getFirst().span().start()).as(text).isEqualTo(at);
    assertThat(faulty.problems().getFirst().message()).contains(says);
  }

  @Test
  void severalMistakesAreToldTogether() {
    Checked.Faulty faulty = (Checked.Faulty) Formulas.condition("peak > 1 AND kilm = 'x'", FIRING);
    assertThat(faulty.problems()).hasSize(2);
  }

  @Test
  void deepNestingIsRefusedAndLongChainsAreNot() {
    String deep = "(".repeat(2000) + "1 = 1" + ")".repeat(2000);
    assertThat(Formulas.condition(deep, FIRING)).isInstanceOf(Checked.Faulty.class);
    String wide = "1 = 1" + " OR 1 = 1".repeat(20_000);
    assertThat(Formulas.condition(wide, FIRING)).isInstanceOf(Checked.Sound.class);
  }

  @Property(tries = 500)
  void whatIsPrintedReadsAsTheSameTree(@ForAll("conditions") String text) {
    Checked.Sound first = (Checked.Sound) Formulas.condition(text, FIRING);
    String printed = SqlText.iso().write(first.tree());
    Checked.Sound again = (Checked.Sound) Formulas.condition(printed, FIRING);
    assertThat(SqlText.iso().write(again.tree())).isEqualTo(printed);
    assertThat(outcome(printed, ROW)).isEqualTo(outcome(text, ROW));
    assertThat(outcome(printed, EMPTY)).isEqualTo(outcome(text, EMPTY));
  }

  @Provide
  Arbitrary<String> conditions() {
    Arbitrary<String> numbers =
        Arbitraries.recursive(
            () -> Arbitraries.of("peak_c", "cost", "7", "2.5", "NULL", "-3"),
            inner ->
                Arbitraries.of(" + ", " - ", " * ")
                    .flatMap(op -> inner.flatMap(l -> inner.map(r -> "(" + l + op + r + ")"))),
            2);
    Arbitrary<String> atoms =
        Arbitraries.oneOf(
            Arbitraries.of(
                "glazed",
                "kiln LIKE 'B%'",
                "kiln IS NULL",
                "day = DATE '2026-09-30'",
                "kiln NOT IN ('a', 'b')"),
            Arbitraries.of(" < ", " = ", " >= ", " <> ")
                .flatMap(op -> numbers.flatMap(l -> numbers.map(r -> l + op + r))));
    return Arbitraries.recursive(
        () -> atoms,
        inner ->
            Arbitraries.oneOf(
                inner.map(e -> "NOT (" + e + ")"),
                inner.flatMap(l -> inner.map(r -> "(" + l + ") AND " + r)),
                inner.flatMap(l -> inner.map(r -> l + " OR " + r)),
                inner.map(e -> "(" + e + ") IS NOT TRUE")),
        3);
  }
}
