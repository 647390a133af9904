package joiner.ddl;

import static org.assertj.core.api.Assertions.assertThat;

import joiner.expression.Formula;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Expressions as PostgreSQL 15, MariaDB 11.4, H2 2.5, SQLite 3.50 and DuckDB 2.0 gave them back.
 */
class FoundSqlTest {
  private static String read(String sql) {
    return FoundSql.read(sql, formula -> true).map(Formula::text).orElse("");
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = "=>",
      quoteCharacter = '#',
      value = {
        "CHECK (((stage)::text = ANY ((ARRAY['raw'::character varying, 'fired'::character varying])::text[]))) => stage IN ('raw', 'fired')",
        "CHECK ((cone <> ALL (ARRAY[6, 7]))) => cone NOT IN (6, 7)",
        "CHECK (((litres >= 5) AND (litres <= 900))) => (litres >= 5) AND (litres <= 900)",
        "CHECK (((name)::text !~~ 'x%'::text)) => name NOT LIKE 'x%'",
        "CHECK (((name)::text ~~ 'x%'::text)) => name LIKE 'x%'",
        "CHECK ((char_length((name)::text) >= 3)) => CHAR_LENGTH(name) >= 3",
        "`litres` > 0 => litres > 0",
        "\"LITRES\" > 0 => \"LITRES\" > 0",
        "\"two words\" <> 'it''s' => \"two words\" <> 'it''s'",
        "now() => CURRENT_TIMESTAMP",
        "current_timestamp() => CURRENT_TIMESTAMP",
        "utc_timestamp(6) => CURRENT_TIMESTAMP",
        "curdate() => CURRENT_DATE",
        "'09:00:00'::time without time zone => '09:00:00'",
        "'2026-03-14 09:30:00'::timestamp(0) without time zone => '2026-03-14 09:30:00'",
        "'1'::double precision => '1'",
        "(7 DIV 2) => 7 / 2",
        "concat('a',concat('b','c')) => 'a' || ('b' || 'c')",
        "_utf8mb4'raw' => 'raw'",
        "((1)) => 1",
        "(day >= CAST('2026-03-14' AS DATE)) => day >= DATE '2026-03-14'",
        "at = CAST(N'2026-03-14T10:00:00' AS datetime2) => at = TIMESTAMP '2026-03-14 10:00:00'",
        "(\"name\" != N'it''s') => name <> 'it''s'",
        "CAST(litres AS integer) > 3 => CAST(litres AS integer) > 3",
        "current_localtimestamp() => LOCALTIMESTAMP",
        "a != 1 => a <> 1",
        "((a = 1) OR (b = (2))) => (a = 1) OR (b = 2)"
      })
  void whatStandsForAFormOfTheStandardIsWrittenAsThat(String found, String standard) {
    assertThat(read(found)).isEqualTo(standard);
  }

  @Test
  void charactersByTheirNumbersAreTheCharacters() {
    assertThat(read("U&'\\00e9\\000a\\\\x'")).isEqualTo("'é\n\\x'");
    assertThat(read("U&'\\91c9 \\+01f3fa'")).isEqualTo("'釉 🏺'");
  }

  @Test
  void namesKeepTheirQuotationMarksWhereTheBareOnesAreNotUnderstood() {
    assertThat(
            FoundSql.read("\"order\" > 0", formula -> formula.text().contains("\""))
                .map(Formula::text))
        .contains("\"order\" > 0");
    assertThat(FoundSql.read("md5(a) = 'x'", formula -> false)).isEmpty();
  }

  @Test
  void checksAreFoundInTheStatementThatMakesATable() {
    assertThat(
            CheckClauses.in(
                "CREATE TABLE t (a int CHECK (a > (1)), -- CHECK (no)\n"
                    + " b text DEFAULT 'CHECK (no)', CONSTRAINT \"my \"\"own\" CHECK (b <> ')'))"))
        .extracting(check -> check.name() + ": " + check.condition().sql())
        .containsExactly(": a > (1)", "my \"own: b <> ')'");
    assertThat(CheckClauses.in("CREATE TABLE t (a int CHECK (")).isEmpty();
  }
}
