package joiner.expression;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;
import joiner.Formulas;
import joiner.Pottery;
import joiner.RandomRules;
import joiner.Tries;
import joiner.meaning.TableMeaning;
import joiner.model.Table;
import joiner.rows.RowValues;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What expressions are worth on one row, how they are printed, and what is refused in words. */
class ExpressionValuesTest {
  private static final Table TABLE = RandomRules.table();
  private static final Rows ROW =
      Rows.NONE.withRow(
          Map.ofEntries(
              cell("id", "1"),
              cell("small", "7"),
              cell("whole", "-20"),
              cell("big", "9223372036854775807"),
              cell("cost", "12.50"),
              cell("share", "0.25"),
              cell("kiln", "Big Tom"),
              cell("note", " süß 🏺 "),
              cell("glazed", "true"),
              cell("day", "2024-02-29"),
              cell("clock", "18:05"),
              cell("begun", "2026-09-30T18:05:00"),
              cell("ended", "2026-10-01T07:40:30.5"),
              cell("sent", "2026-10-01T00:30:00+02:00"),
              cell("mark", "6F9619FF-8B86-4011-B42D-00C04FC964FF")));

  private static Map.Entry<joiner.model.FieldId, String> cell(String field, String text) {
    return Map.entry(new joiner.model.FieldId(field), text);
  }

  private static Checked.Sound sound(String text) {
    Checked checked = Formulas.value(text, TABLE);
    assertThat(checked).as(text).isInstanceOf(Checked.Sound.class);
    return (Checked.Sound) checked;
  }

  private static Value value(String text) {
    return new Evaluator(Pottery.CLOCK)
        .evaluate(sound(text).tree(), new RowValues(TABLE, ROW).row(0));
  }

  /**
   * Values as ISO/IEC 9075-2 has them (from memory); what texts of numbers and moments look like is
   * what PostgreSQL and H2 write.
   */
  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      quoteCharacter = '`',
      value = {
        "7 / 2~3",
        "-7 / 2~-3",
        "7.0 / 2~3.5",
        "MOD(-7, 2)~-1",
        "MOD(7, -2)~1",
        "small * 3 - 1~20",
        "-small~-7",
        "- -small~7",
        "+small~7",
        "2 + 3 * 4~14",
        "(2 + 3) * 4~20",
        "10 - 3 - 2~5",
        "24 / 4 / 2~3",
        "ABS(whole)~20",
        "ABS(-0.5)~0.5",
        "FLOOR(-2.5)~-3",
        "CEILING(-2.5)~-2",
        "CEIL(2.1)~3",
        "1e3~1000",
        "1.5E-1~0.15",
        ".5~0.5",
        "5.~5",
        "CHAR_LENGTH(note)~7",
        "CHARACTER_LENGTH('')~0",
        "UPPER('kiln')~KILN",
        "LOWER('KILN')~kiln",
        "TRIM('  a b  ')~a b",
        "TRIM('    ')~",
        "SUBSTRING(kiln FROM 5)~Tom",
        "SUBSTRING(kiln FROM 7)~m",
        "SUBSTRING(kiln FROM 8)~",
        "SUBSTRING(kiln FROM 99)~",
        "SUBSTRING(kiln FROM 1 FOR 3)~Big",
        "SUBSTRING(kiln FROM -1 FOR 3)~B",
        "SUBSTRING(kiln FROM 0)~Big Tom",
        "SUBSTRING(kiln FROM 3 FOR 0)~",
        "SUBSTRING(note FROM 6 FOR 1)~🏺",
        "POSITION('Tom' IN kiln)~5",
        "POSITION('' IN kiln)~1",
        "POSITION('x' IN kiln)~0",
        "POSITION('B' IN kiln)~1",
        "POSITION(' ' IN SUBSTRING(note FROM 2))~4",
        "kiln || '!'~Big Tom!",
        "'it''s'~it's",
        "COALESCE(NULL, NULL, 'a')~a",
        "NULLIF('a', 'b')~a",
        "CASE WHEN 1 = 2 THEN 'a' WHEN glazed THEN 'b' ELSE 'c' END~b",
        "CASE kiln WHEN 'x' THEN 1 ELSE 2 END~2",
        "CASE small WHEN 7 THEN 'seven' END~seven",
        "EXTRACT(YEAR FROM day)~2024",
        "EXTRACT(MONTH FROM begun)~9",
        "EXTRACT(DAY FROM day)~29",
        "EXTRACT(HOUR FROM clock)~18",
        "EXTRACT(MINUTE FROM ended)~40",
        "EXTRACT(HOUR FROM sent)~22",
        "EXTRACT(DAY FROM sent)~30",
        "CAST(cost AS VARCHAR)~12.50",
        "CAST(cost * 2 AS VARCHAR)~25.00",
        "CAST(cost * cost AS VARCHAR)~156.2500",
        "CAST(cost + 1 AS VARCHAR)~13.50",
        "CAST(1 + cost AS VARCHAR)~13.50",
        "CAST(-cost AS VARCHAR)~-12.50",
        "CAST(ABS(share) AS VARCHAR)~0.25",
        "CAST(FLOOR(cost) AS VARCHAR)~12",
        "CAST(COALESCE(cost, share) AS VARCHAR)~12.50",
        "CAST(1.50 AS VARCHAR)~1.5",
        "CAST(2.0 AS VARCHAR)~2.0",
        "CAST(small AS VARCHAR)~7",
        "CAST(MOD(small, 4) AS VARCHAR)~3",
        "CAST(glazed AS VARCHAR)~true",
        "CAST(NOT glazed AS VARCHAR)~false",
        "CAST(day AS VARCHAR)~2024-02-29",
        "CAST(clock AS VARCHAR)~18:05:00",
        "CAST(begun AS VARCHAR)~2026-09-30 18:05:00",
        "CAST(ended AS VARCHAR)~2026-10-01 07:40:30.5",
        "CAST(mark AS VARCHAR)~6f9619ff-8b86-4011-b42d-00c04fc964ff",
        "CAST(kiln AS VARCHAR)~Big Tom",
        "day + INTERVAL '1' YEAR~2025-02-28",
        "day + INTERVAL '1' MONTH~2024-03-29",
        "day - INTERVAL '29' DAY~2024-01-31",
        "begun + INTERVAL '6' HOUR~2026-10-01T00:05:00",
        "begun - INTERVAL '90' MINUTE~2026-09-30T16:35:00",
        "TRIM(BOTH FROM '  a ')~a",
        "TRIM('x' FROM 'xxaxx')~a",
        "TRIM(LEADING '0' FROM '00700')~700",
        "TRIM(TRAILING '0' FROM '00700')~007",
        "CHAR_LENGTH(LTRIM('  a '))~2",
        "RTRIM('🏺🏺a🏺', '🏺')~🏺🏺a",
        "LPAD(CAST(small AS VARCHAR), 4, '0')~0007",
        "RPAD('Ann', 5, '.')~Ann..",
        "LPAD('kiln', 2)~ki",
        "LPAD('🏺', 3, '🏺')~🏺🏺🏺",
        "CHAR_LENGTH(RPAD('a', 3))~3",
        "OVERLAY('Txxxxas' PLACING 'hom' FROM 2 FOR 4)~Thomas",
        "OVERLAY('kiln' PLACING 'K' FROM 1)~Kiln",
        "OVERLAY('kiln' PLACING 'X' FROM 99 FOR 1)~kilnX",
        "CONCAT_WS(', ', kiln, NULL, 'b')~Big Tom, b",
        "CONCAT_WS(', ', NULL, form)~",
        "CONCAT_WS('', 'a', '', 'b')~ab",
        "CONCAT_WS('-', 'a', '', 'b')~a--b",
        "EXTRACT(ISODOW FROM day)~4",
        "EXTRACT(ISODOW FROM sent)~3",
        "EXTRACT(DAY FROM (DATE '2024-03-01' - day) DAY)~1",
        "EXTRACT(DAY FROM (day - DATE '2024-03-01') DAY(4))~-1",
        "EXTRACT(DAY FROM (ended - begun) DAY)~0",
        "EXTRACT(HOUR FROM (ended - begun) HOUR)~13",
        "EXTRACT(MINUTE FROM (begun - ended) MINUTE)~-815",
        "EXTRACT(SECOND FROM (ended - begun) SECOND)~48930",
        "EXTRACT(HOUR FROM (begun - DATE '2026-09-30') HOUR)~18",
        "EXTRACT(DAY FROM (due - day) DAY)~",
        "CURRENT_DATE~2026-10-01",
        "LOCALTIMESTAMP~2026-10-01T12:00:00"
      })
  void anExpressionIsWorth(String text, String worth) {
    assertThat(Evaluator.show(value(text))).as(text).isEqualTo(worth == null ? "" : worth);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "mark = '6F9619FF-8b86-4011-B42D-00C04FC964FF'",
        "'6F9619FF-8b86-4011-B42D-00C04FC964FF' = mark",
        "mark IN ('6F9619FF-8b86-4011-B42D-00C04FC964FF')",
        "CURRENT_TIMESTAMP = CURRENT_TIMESTAMP",
        "'a' < 'b' AND 'B' < 'a' AND 'a' < 'aa'",
        "'￿' < '🏺'",
        "TIME '07:00' < clock",
        "sent = sent AND sent < CURRENT_TIMESTAMP",
        "FALSE < glazed",
        "small BETWEEN 7 AND 7 AND small NOT BETWEEN 8 AND 9",
        "NOT (small BETWEEN 8 AND NULL)",
        "small <= 7 AND small >= 7 AND NOT small < 7 AND NOT small > 7",
        "(NULL = 1) IS UNKNOWN AND (1 = 1) IS NOT UNKNOWN",
        "(1 = 1) IS TRUE AND (1 = 2) IS FALSE AND (1 = 2) IS NOT TRUE",
        "day < begun AND day = TIMESTAMP '2024-02-29 00:00'",
        "'abc' LIKE 'a%c' AND 'abc' LIKE '%' AND 'abc' LIKE 'abc%' AND 'aXbXc' LIKE 'a%b%c'",
        "'abc' NOT LIKE 'ab' AND 'abc' NOT LIKE 'abcd' AND '' NOT LIKE '_' AND '' LIKE '%%'",
        "'a%c' LIKE 'a!%c' ESCAPE '!' AND 'abc' NOT LIKE 'a!%c' ESCAPE '!'",
        "'a!c' LIKE 'a!!c' ESCAPE '!' AND 'a_c' LIKE 'a!_c' ESCAPE '!'",
        "'aab' LIKE '%ab' AND 'abab' LIKE '%ab' AND 'aba' NOT LIKE '%ab'",
        "2147483648 > 2147483647 AND 99999999999999999999 > big",
        "\"kiln\" = 'Big Tom' AND KILN = kiln",
        "COALESCE(NULL, 1.5) + 1 = 2.5",
        "CASE WHEN NULL = 1 THEN 1 END IS NULL",
        "(kiln IS NULL) = FALSE"
      })
  void isTrue(String condition) {
    assertThat(value(condition)).as(condition).isEqualTo(Value.TRUE);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      quoteCharacter = '`',
      value = {
        "small / 0~it divides by zero",
        "MOD(small, small - 7)~it divides by zero",
        "small * 2147483647~it leaves the whole numbers of 32 bits",
        "big + small~it leaves the whole numbers of 64 bits",
        "small + small * small * small * small * small * small~it leaves the whole numbers of 16 bits",
        "-whole * 2147483647~it leaves the whole numbers of 32 bits",
        "SUBSTRING(kiln FROM 2 FOR whole)~SUBSTRING has a negative length",
        "begun + INTERVAL '2147483647' YEAR~it leaves the calendar",
        "kiln LIKE kiln || '!' ESCAPE '!'~the escape character of LIKE stands before nothing it may escape"
      })
  void cannotBeComputed(String text, String why) {
    assertThatThrownBy(() -> value(text))
        .as(text)
        .isInstanceOf(EvaluationException.class)
        .hasMessage(why);
  }

  /** The nearest to each border of the widths of whole numbers that still fits. */
  @Test
  void widthsAreThoseOfTheWiderOperand() {
    assertThat(Evaluator.show(value("small + 32760"))).isEqualTo("32767");
    assertThat(Evaluator.show(value("small + 32761")))
        .as("a literal has 32 bits")
        .isEqualTo("32768");
    assertThat(Evaluator.show(value("whole + 2147483647"))).isEqualTo("2147483627");
    assertThat(Evaluator.show(value("whole + 2147483648"))).isEqualTo("2147483628");
    assertThat(Evaluator.show(value("big - 1 + 1"))).isEqualTo("9223372036854775807");
    assertThat(sound("99999999999999999999 / 2").kind()).isEqualTo(Kind.NUMBER);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      quoteCharacter = '`',
      value = {
        "kiln + 1~0~kiln is text; only numbers can be computed with. Texts are joined with ||.",
        "1 + glazed~4~glazed is true or false; only numbers can be computed with.",
        "-kiln~1~kiln is text; only a number has a sign.",
        "small || 'a'~0~small is a whole number; it must be text here; write CAST(… AS VARCHAR) to turn it into text.",
        "UPPER(small)~6~small is a whole number; it must be text here; write CAST(… AS VARCHAR) to turn it into text.",
        "SUBSTRING(kiln FROM 'a')~20~This is text; a number is needed here.",
        "glazed AND small~11~small is a whole number; it is joined with AND, OR or NOT, so it must be a condition.",
        "NOT kiln~4~kiln is text; it is joined with AND, OR or NOT, so it must be a condition.",
        "ABS(kiln)~4~kiln is text; only numbers can be computed with. Texts are joined with ||.",
        "MOD(cost, 2)~4~cost is a number; a remainder is of whole numbers.",
        "day + 7~0~A date moves by a length of time: write INTERVAL '7' DAY instead of a plain number.",
        "7 + day~0~A date moves by a length of time: write INTERVAL '7' DAY instead of a plain number.",
        "day * INTERVAL '7' DAY~0~A length of time is added to a date or subtracted from it: date + INTERVAL '7' DAY.",
        "INTERVAL '7' DAY + day~0~A length of time is added to a date or subtracted from it: date + INTERVAL '7' DAY.",
        "small + INTERVAL '7' DAY~0~A length of time is added to a date or subtracted from it: date + INTERVAL '7' DAY.",
        "day + INTERVAL '7' HOUR~0~A date has no hours; move it by whole days.",
        "INTERVAL '7' DAY = INTERVAL '7' DAY~0~A length of time is added to a date or subtracted from it, not compared.",
        "kiln = 7~0~Compares kiln (text) with a whole number. Write the text in quotes.",
        "kiln = small~0~Compares kiln (text) with small (a whole number). Compare values of one kind.",
        "day = '2026-03-14'~0~Compares day (a date) with text. Write the date as DATE '2026-03-14'.",
        "begun = '2026-03-14'~0~Compares begun (a date and time) with text. Write the moment as TIMESTAMP '2026-03-14 18:05'.",
        "begun < CURRENT_TIMESTAMP~0~Compares begun (a date and time) with a date and time with its zone. Use LOCALTIMESTAMP with moments that carry no zone, CURRENT_TIMESTAMP with those that do.",
        "glazed = 1~0~Compares glazed (true or false) with a whole number. Compare values of one kind.",
        "mark = 'none'~7~“none” is no UUID; it has 32 hexadecimal digits in five groups.",
        "mark = kiln~7~A UUID is compared with another or with one in quotes, not with a text.",
        "day IN (begun)~8~A date is listed with a date and time; list dates only.",
        "CASE WHEN glazed THEN 1 ELSE 'a' END~29~The branches differ: one gives a whole number, this one text.",
        "COALESCE(kiln, small)~15~The branches differ: one gives text, this one a whole number.",
        "EXTRACT(HOUR FROM day)~18~day is a date; it has no HOUR.",
        "EXTRACT(YEAR FROM clock)~18~clock is a time of day; it has no YEAR.",
        "EXTRACT(YEAR FROM kiln)~18~kiln is text; it has no YEAR.",
        "CAST(cost / 3 AS VARCHAR)~0~How many decimals this number is written with differs from engine to engine; compare it as a number.",
        "CAST(COALESCE(cost, 1) AS VARCHAR)~0~How many decimals this number is written with differs from engine to engine; compare it as a number.",
        "CAST(sent AS VARCHAR)~0~sent is a date and time with its zone; how it is written differs from engine to engine.",
        "kiln LIKE 'a!b' ESCAPE '!'~10~The escape character “!” stands before nothing it may escape: it goes before %, _ or itself.",
        "2147483647 + 1~0~This cannot be computed: it leaves the whole numbers of 32 bits.",
        "7 / 0~0~This cannot be computed: it divides by zero.",
        "kil = 'a'~0~There is no field kil in Firing log; did you mean kiln?",
        "DATE '12345-01-01'~5~“12345-01-01” does not exist; write it like DATE '2026-03-14'.",
        "DATE '0000-01-01'~5~“0000-01-01” does not exist; write it like DATE '2026-03-14'.",
        "TIME '25:00'~5~“25:00” does not exist; write it like TIME '18:05'.",
        "TIMESTAMP 'now'~10~“now” does not exist; write it like TIMESTAMP '2026-03-14 18:05'.",
        "INTERVAL 'x' DAY~9~A whole number was expected, as in INTERVAL '14' DAY.",
        "INTERVAL '7' WEEK~13~YEAR, MONTH, DAY, HOUR or MINUTE was expected after the number; found “WEEK”.",
        "small IS 7~9~NULL, TRUE, FALSE or UNKNOWN was expected after IS; found “7”.",
        "small BETWEEN 1 OR 2~16~BETWEEN has two ends: AND was expected; found “OR”.",
        "small IN 1~9~A list in brackets was expected after IN; found “1”.",
        "small IN (1 2)~12~A comma or ) was expected in the list; found “2”.",
        "kiln LIKE 'a' ESCAPE 'ab'~21~One character in quotes was expected after ESCAPE; found “ab”.",
        "CASE END~5~A value was expected; found “END”.",
        "CASE small END~11~WHEN was expected after CASE; found “END”.",
        "CASE WHEN glazed 1~17~THEN was expected after the condition; found “1”.",
        "CASE WHEN glazed THEN 1~23~WHEN, ELSE or END was expected; found the end.",
        "EXTRACT(WEEK FROM day)~8~YEAR, MONTH, DAY, ISODOW, HOUR or MINUTE was expected after EXTRACT(; found “WEEK”.",
        "EXTRACT(SECOND FROM begun)~8~SECOND is counted between two moments: EXTRACT(SECOND FROM (later - earlier) SECOND).",
        "day - due~0~What lies between two dates is told in a unit: write EXTRACT(DAY FROM (day - due) DAY).",
        "EXTRACT(HOUR FROM (day - due) HOUR)~0~Dates have no hours; between them there are days: EXTRACT(DAY FROM (…) DAY).",
        "EXTRACT(HOUR FROM (ended - begun) DAY)~34~What lies between two moments is told in one unit, as in EXTRACT(DAY FROM (later - earlier) DAY); found “DAY”.",
        "EXTRACT(DAY FROM (sent - begun) DAY)~25~Between sent (a date and time with its zone) and begun (a date and time) no time lies.",
        "LPAD(kiln, small)~11~LPAD is told how long the text becomes by a number to 1000.",
        "LPAD(kiln, 4, 'ab')~14~LPAD is told one character to fill up with, in quotes.",
        "TRIM('ab' FROM kiln)~5~TRIM is told one character to take off, in quotes.",
        "OVERLAY(kiln PLACING 'a' FROM small)~30~OVERLAY is told where it begins by a number from 1 on.",
        "OVERLAY(kiln PLACING note FROM 2)~0~OVERLAY is told how many characters are covered: … FOR 2).",
        "OVERLAY(kiln, 'a', 2)~12~OVERLAY is written OVERLAY(text PLACING other FROM 1 FOR 2): PLACING was expected; found “,”.",
        "CONCAT_WS(kiln, note, 'a')~10~CONCAT_WS is told first, in quotes, what stands between the texts.",
        "CONCAT_WS(', ', note)~0~CONCAT_WS takes 3 to 100 arguments, not 2.",
        "TRIM(LEADING '0', kiln)~16~TRIM is written TRIM(LEADING '0' FROM text): FROM was expected; found “,”.",
        "CAST(small AS INTEGER)~14~Only CAST(… AS VARCHAR) is known: VARCHAR was expected; found “INTEGER”.",
        "SUBSTRING(kiln, 1)~14~SUBSTRING is written SUBSTRING(text FROM 1 FOR 2): FROM was expected; found “,”.",
        "POSITION('a', kiln)~12~POSITION is written POSITION(part IN whole): IN was expected; found “,”.",
        "MOD(1)~0~MOD takes 2 arguments, not 1.",
        "COALESCE()~0~COALESCE takes 1 to 100 arguments, not 0.",
        "1e~0~The number “1e” breaks off; finish it.",
        "1e+~0~The number “1e+” breaks off; finish it.",
        "kiln = \"a~7~The field name that begins here is never closed; end it with \".",
        "kiln = 'a~7~The text that begins here is never closed; end it with '.",
        "kiln = # 1~7~The character “#” has no meaning here; remove it.",
        "kiln 🏺~5~The character “🏺” has no meaning here; remove it.",
        "small = 1 2~10~An operator such as AND, = or + was expected, or the end; found “2”.",
        "1e99999~0~The number is too long; at most 1000 digits."
      })
  void isRefusedInWords(String text, int at, String says) {
    Checked checked = Formulas.value(text, TABLE);
    assertThat(checked).as(text).isInstanceOf(Checked.Faulty.class);
    Problem problem = ((Checked.Faulty) checked).problems().getFirst();
    assertThat(problem.message()).as(text).isEqualTo(says);
    assertThat(problem.span().start()).as(text).isEqualTo(at);
    assertThat(problem.span().end()).isBetween(at, text.length());
  }

  @Test
  void nothingAtAllAsksForACondition() {
    assertThat(((Checked.Faulty) Formulas.condition("", TABLE)).problems())
        .extracting(Problem::message)
        .containsExactly("There is nothing here yet; type a condition.");
    assertThat(((Checked.Faulty) Formulas.condition("xyzzy = 1", TABLE)).problems())
        .first()
        .satisfies(p -> assertThat(p.message()).contains("; its fields are id, small, whole"));
  }

  /** Brackets stand only where the tree would be another one without. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      quoteCharacter = '`',
      value = {
        "((1 + 2)) * 3 = 9~(1 + 2) * 3 = 9",
        "1 - (2 - 3) = 2~1 - (2 - 3) = 2",
        "(1 - 2) - 3 = -4~1 - 2 - 3 = -4",
        "8 / (4 / 2) = 4~8 / (4 / 2) = 4",
        "-(1 + 2) = -3~-(1 + 2) = -3",
        "glazed OR (fired AND glazed)~glazed OR fired AND glazed",
        "(glazed OR fired) AND glazed~(glazed OR fired) AND glazed",
        "NOT (glazed OR fired)~NOT (glazed OR fired)",
        "(small = 1) IS TRUE~(small = 1) IS TRUE",
        "(small = 1) = glazed~(small = 1) = glazed",
        "'a' || ('b' || 'c') = 'abc'~'a' || ('b' || 'c') = 'abc'",
        "kiln NOT LIKE 'a!_' ESCAPE '!'~kiln NOT LIKE 'a!_' ESCAPE '!'",
        "small NOT IN (1, 2)~small NOT IN (1, 2)",
        "small NOT BETWEEN 1 AND 2~small NOT BETWEEN 1 AND 2",
        "kiln IS NOT NULL~kiln IS NOT NULL",
        "CASE small WHEN 1 THEN 'a' ELSE 'b' END = 'a'~CASE small WHEN 1 THEN 'a' ELSE 'b' END = 'a'",
        "CASE WHEN glazed THEN 1 END = 1~CASE WHEN glazed THEN 1 END = 1",
        "SUBSTRING(kiln FROM 1 FOR 2) = 'a'~SUBSTRING(kiln FROM 1 FOR 2) = 'a'",
        "SUBSTRING(kiln FROM 2) = 'a'~SUBSTRING(kiln FROM 2) = 'a'",
        "POSITION('a' IN kiln) = 1~POSITION('a' IN kiln) = 1",
        "EXTRACT(YEAR FROM day) = 1~EXTRACT(YEAR FROM day) = 1",
        "CAST(small AS VARCHAR) = '1'~CAST(small AS VARCHAR) = '1'",
        "day + INTERVAL '7' DAY > day~day + INTERVAL '7' DAY > day",
        "day - INTERVAL '2' MONTH > day~day - INTERVAL '2' MONTH > day",
        "day - INTERVAL '3' YEAR > day~day - INTERVAL '3' YEAR > day",
        "begun + INTERVAL '2' HOUR > begun~begun + INTERVAL '2' HOUR > begun",
        "begun + INTERVAL '90' MINUTE > begun~begun + INTERVAL '90' MINUTE > begun",
        "day = DATE '2026-03-14'~day = DATE '2026-03-14'",
        "clock = TIME '18:05'~clock = TIME '18:05'",
        "begun = TIMESTAMP '2026-03-14 18:05'~begun = TIMESTAMP '2026-03-14 18:05:00'",
        "day = CURRENT_DATE~day = CURRENT_DATE",
        "sent = CURRENT_TIMESTAMP~sent = CURRENT_TIMESTAMP",
        "begun = LOCALTIMESTAMP~begun = LOCALTIMESTAMP",
        "cost = 5.0~cost = 5.0",
        "glazed = TRUE AND fired = FALSE~glazed = TRUE AND fired = FALSE",
        "kiln = 'it''s'~kiln = 'it''s'",
        "COALESCE(small, 1) = NULLIF(1, 2)~COALESCE(small, 1) = NULLIF(1, 2)",
        "(glazed OR fired) IS NOT FALSE~(glazed OR fired) IS NOT FALSE",
        "(NULL = 1) IS UNKNOWN~(NULL = 1) IS UNKNOWN"
      })
  void isPrintedPlainly(String text, String printed) {
    assertThat(SqlText.iso().write(sound(text).tree())).isEqualTo(printed);
  }

  @Test
  void generatedRulesReadAsTheyArePrinted() {
    Tries.of(300)
        .forEach(
            seed -> {
              String text = new RandomRules(seed).condition();
              if (Formulas.condition(text, TABLE) instanceof Checked.Sound first) {
                String printed = SqlText.iso().write(first.tree());
                Checked.Sound again = (Checked.Sound) Formulas.condition(printed, TABLE);
                assertThat(SqlText.iso().write(again.tree())).as(text).isEqualTo(printed);
                assertThat(again.reads()).isEqualTo(first.reads());
                assertThat(again.tree()).as("places make no difference").isEqualTo(first.tree());
              }
            });
  }

  @Test
  void aRuleKnowsItsFieldsAndWhetherItReadsTheClock() {
    assertThat(sound("kiln = note OR kiln = 'a'").reads())
        .extracting(Reference::name)
        .containsExactly("kiln", "note");
    for (String clocked :
        List.of(
            "day < CURRENT_DATE",
            "CASE WHEN day = CURRENT_DATE THEN 1 END = 1",
            "CASE WHEN glazed THEN day ELSE CURRENT_DATE END = day",
            "CASE day WHEN CURRENT_DATE THEN 1 END = 1",
            "day IN (day, CURRENT_DATE)",
            "CURRENT_DATE IN (day)",
            "day BETWEEN day AND CURRENT_DATE",
            "CAST(CURRENT_DATE AS VARCHAR) = 'a'",
            "EXTRACT(YEAR FROM CURRENT_DATE) = 1",
            "CURRENT_DATE + INTERVAL '1' DAY = day",
            "NOT (CURRENT_DATE IS NULL)",
            "CASE WHEN glazed THEN CURRENT_DATE END IS NULL")) {
      assertThat(sound(clocked).readsClock()).as(clocked).isTrue();
    }
    assertThat(sound("CASE kiln WHEN 'a' THEN 1 ELSE 2 END = 1").readsClock()).isFalse();
  }

  private static String renamed(String text, Map<String, String> names) {
    return new Formula(text)
        .renamed(
            TableMeaning.of(TABLE).scope(), to -> List.of(names.getOrDefault(to.name(), to.name())))
        .text();
  }

  @Test
  void aRenameReachesEveryPlaceAndNoText() {
    assertThat(
            renamed(
                "kiln>'a'  AND \"kiln\" > 'b' AND 'kiln' <> note AND KILN < 'c'",
                Map.of("kiln", "new name")))
        .isEqualTo(
            "\"new name\">'a'  AND \"new name\" > 'b' AND 'kiln' <> note AND \"new name\" < 'c'");
    assertThat(renamed("kiln = ", Map.of("kiln", "b"))).isEqualTo("kiln = ");
    assertThat(
            renamed(
                "CASE small WHEN 1 THEN small ELSE -small END IN (small, big)",
                Map.of("small", "c")))
        .isEqualTo("CASE c WHEN 1 THEN c ELSE -c END IN (c, big)");
  }

  @Test
  void namesThatChangePlacesAreRenamedAtOnce() {
    assertThat(renamed("small < big", Map.of("small", "big", "big", "small")))
        .isEqualTo("big < small");
    assertThat(renamed("nowhere < big", Map.of("nowhere", "x"))).isEqualTo("nowhere < big");
  }

  @Test
  void theSameSaidElsewhereIsEqualAndAnotherThingIsNot() {
    assertThat(sound("small<big").tree()).isEqualTo(sound("  small  <  big ").tree());
    assertThat(sound("small<big").tree().hashCode())
        .isEqualTo(sound(" small<big").tree().hashCode());
    assertThat(sound("small < big").tree()).isNotEqualTo(sound("big < small").tree());
  }

  @ParameterizedTest
  @CsvSource({
    "kil,kiln",
    "KILM,kiln",
    "nite,note",
    "begin,begun",
    "smal,small",
    "x,''",
    "kilogram,''",
    "abcd,''"
  })
  void theNearestNameIsFoundOrNone(String typed, String meant) {
    assertThat(Spelling.nearest(typed, TABLE.fieldsByName().keySet()).orElse("")).isEqualTo(meant);
  }

  /** SQL's equality: numbers by value, moments by instant, texts exactly. */
  @Test
  void valuesAreEqualAsInSql() {
    var one = new Value.Num(new BigDecimal("1.50"), false);
    assertThat(one).isEqualTo(new Value.Num(new BigDecimal("1.5"), false));
    assertThat(one.hashCode()).isEqualTo(new Value.Num(new BigDecimal("1.500"), false).hashCode());
    assertThat(one.hashCode()).isNotEqualTo(Value.whole(7).hashCode());
    assertThat(one).isNotEqualTo(Value.whole(2)).isNotEqualTo(Value.NULL);
    assertThat(Value.whole(2)).isEqualTo(new Value.Num(new BigDecimal("2.0"), false));
    assertThat(new Value.Num(new BigDecimal("0.00"), false).number()).isEqualTo(BigDecimal.ZERO);
    var noon = new Value.Zoned(OffsetDateTime.parse("2026-10-01T12:00:00Z"));
    var same = new Value.Zoned(OffsetDateTime.parse("2026-10-01T14:00:00+02:00"));
    assertThat(noon).isEqualTo(same).hasSameHashCodeAs(same);
    assertThat(noon)
        .isNotEqualTo(new Value.Zoned(OffsetDateTime.parse("2026-10-01T12:00:01Z")))
        .isNotEqualTo(Value.NULL);
    assertThat(noon.hashCode())
        .isNotEqualTo(new Value.Zoned(OffsetDateTime.parse("2027-10-01T12:00:01Z")).hashCode());
    assertThat(Value.of(true)).isEqualTo(Value.TRUE);
    assertThat(Evaluator.show(Value.NULL)).isEmpty();
    assertThat(
            Evaluator.show(new Value.DateTime(java.time.LocalDateTime.parse("2026-10-01T12:00"))))
        .isEqualTo("2026-10-01T12:00:00");
    assertThat(Evaluator.show(noon)).isEqualTo("2026-10-01T12:00:00Z");
    assertThat(value("begun = begun AND NULL IS NULL")).isEqualTo(Value.TRUE);
    assertThatThrownBy(() -> Evaluator.order(Value.NULL, Value.NULL))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void nestingUpToTheLimitIsReadAndOneMoreIsRefused() {
    for (String[] pair :
        new String[][] {
          {"(", ")"}, {"NOT (", ")"}, {"-", ""}, {"+", ""}, {"CASE WHEN 1=1 THEN ", " END"}
        }) {
      String core = pair[0].startsWith("NOT") ? "1=1" : "1";
      int deepest = 0;
      for (int depth = 1; depth <= 420; depth++) {
        String text = pair[0].repeat(depth) + core + pair[1].repeat(depth);
        boolean read = Formulas.value(text, TABLE) instanceof Checked.Sound;
        if (read) {
          assertThat(depth).as("%s once refused stays refused", pair[0]).isEqualTo(deepest + 1);
          deepest = depth;
        }
      }
      assertThat(deepest).as(pair[0]).isBetween(60, 200);
    }
    String chain = "1" + " + 1".repeat(200);
    assertThat(Formulas.value(chain, TABLE)).isInstanceOf(Checked.Sound.class);
    for (String sign : List.of(" + 1", " - 1", " * 1")) {
      assertThat(Formulas.value("1" + sign.repeat(201), TABLE))
          .isInstanceOfSatisfying(
              Checked.Faulty.class,
              faulty ->
                  assertThat(faulty.problems().getFirst().message())
                      .isEqualTo("Too many operators in one chain (limit 200)."));
    }
    assertThat(Formulas.value("(".repeat(300) + "1" + ")".repeat(300), TABLE))
        .isInstanceOfSatisfying(
            Checked.Faulty.class,
            faulty ->
                assertThat(faulty.problems().getFirst().message())
                    .isEqualTo("Nested too deeply (limit 200)."));
    String flat = "(1=1)" + " AND (1=1)".repeat(500);
    assertThat(Formulas.value(flat, TABLE))
        .as("depth ends with its bracket")
        .isInstanceOf(Checked.Sound.class);
    String many = "1=1" + " AND NOT 1=2 AND CASE WHEN 1=1 THEN -1 END = - 1 AND +1=1".repeat(300);
    assertThat(Formulas.value(many, TABLE)).isInstanceOf(Checked.Sound.class);
  }
}
