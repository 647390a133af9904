package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import joiner.Formulas;
import joiner.RandomRules;
import joiner.Tries;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.rows.RowValues;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * The verdict of the evaluator on generated rules is the one that conditions written for SQL Server
 * and Oracle give in H2's modes for these. A second opinion only: H2 computes there as it does
 * elsewhere; what it does not know of the other engine is put into its words or passed over.
 * Public, for H2 calls functions of it.
 */
public class RulesInModesTest {
  private static final int ROWS = 12;

  /** H2's numbers for what it cannot read or does not know. */
  private static final Set<Integer> UNKNOWN_TO_H2 = Set.of(42000, 42001, 90022, 90110, 42122);

  private static final Map<Dialect, String> MODES =
      Map.of(Dialects.SQL_SERVER, "MSSQLServer", Dialects.ORACLE, "Oracle");

  private static Stream<Dialect> judged() {
    return Stream.of(Dialects.SQL_SERVER, Dialects.ORACLE);
  }

  /** For H2: bytes of a text in UTF-16. */
  public static @Nullable Integer datalength(@Nullable String text) {
    return text == null ? null : 2 * text.length();
  }

  /** For H2: a moment in UTC. */
  public static @Nullable OffsetDateTime switchoffset(
      @Nullable OffsetDateTime moment, String zone) {
    return moment == null ? null : moment.withOffsetSameInstant(ZoneOffset.of(zone));
  }

  /** What H2 calls otherwise even in its modes. */
  private static String inWordsOfH2(String sql) {
    return sql.replaceAll(" COLLATE Latin1_General_100_BIN2", "")
        .replace("datetimeoffset", "timestamp with time zone")
        .replace("datetime2", "timestamp")
        .replace(" AS float)", " AS decfloat)")
        .replace("interval day(0) to second(6)", "interval day to second(6)")
        .replaceAll("varchar2\\((\\d+) char\\)", "varchar2($1)")
        .replaceAll(",\\s+CONSTRAINT \\S+_type CHECK \\(REGEXP_LIKE.*", "")
        .replaceAll("\\(TRUNC\\((\\w+)\\) - TRUNC\\(\\1, 'IW'\\) \\+ 1\\)", "ISO_DAY_OF_WEEK($1)")
        .replaceAll("SYS_EXTRACT_UTC\\((\\w+)\\)", "switchoffset($1, '+00:00')")
        .replace("clob", "varchar");
  }

  private static Connection shipped(Draft draft, Dialect dialect) throws SQLException {
    Connection connection =
        DriverManager.getConnection("jdbc:h2:mem:;NON_KEYWORDS=DAY;MODE=" + MODES.get(dialect));
    try (Statement statement = connection.createStatement()) {
      for (String name : new String[] {"datalength", "switchoffset"}) {
        String method = RulesInModesTest.class.getName() + "." + name;
        statement.execute("CREATE ALIAS " + name + " FOR \"" + method + "\"");
      }
      for (var part : SchemaScript.of(draft, dialect, RowsChoice.ALL).statements()) {
        statement.execute(inWordsOfH2(part.sql()));
      }
    }
    return connection;
  }

  private static Optional<String> evaluated(Checked.Sound rule, RowValues values, int row) {
    try {
      Value value = new Evaluator(Clock.systemUTC()).evaluate(rule.tree(), values.row(row));
      return Optional.of(
          value instanceof Value.Null ? "UNKNOWN" : value.equals(Value.TRUE) ? "TRUE" : "FALSE");
    } catch (EvaluationException e) {
      return Optional.empty();
    }
  }

  private static Optional<String> verdict(Connection connection, String sql, int row) {
    String query =
        "SELECT CASE WHEN "
            + sql
            + " THEN 'TRUE' WHEN NOT ("
            + sql
            + ") THEN 'FALSE' ELSE 'UNKNOWN' END FROM firing_log WHERE id = "
            + (row + 1);
    try (Statement statement = connection.createStatement();
        ResultSet result = statement.executeQuery(query)) {
      result.next();
      return Optional.of(result.getString(1));
    } catch (SQLException e) {
      boolean cannotCompute = e.getErrorCode() / 1000 == 22;
      assertThat(cannotCompute || UNKNOWN_TO_H2.contains(e.getErrorCode())).as("%s", e).isTrue();
      return Optional.empty();
    }
  }

  /**
   * H2 counts positions below 1 from the end, and what it cuts out may be empty: NULL in Oracle.
   */
  private static boolean isLeftOut(String sql) {
    return sql.contains("SUBSTR") || sql.contains("TRIM(");
  }

  @ParameterizedTest
  @MethodSource("judged")
  void theVerdictIsTheSame(Dialect dialect) throws SQLException {
    Table table = RandomRules.table();
    int compared = 0;
    for (long seed : Tries.of(12).toArray()) {
      var rules = new RandomRules(seed);
      Draft draft = rules.draft(ROWS);
      var values = new RowValues(table, draft.rows().of(table.id()));
      try (Connection connection = shipped(draft, dialect)) {
        for (String condition : rules.conditions(25)) {
          if (!(Formulas.condition(condition, table) instanceof Checked.Sound rule)
              || !(dialect.sayCondition(rule.tree()) instanceof Support.Kept kept)
              || isLeftOut(kept.sql())) {
            continue;
          }
          String sql = inWordsOfH2(kept.sql());
          for (int row = 0; row < ROWS; row++) {
            Optional<String> found = verdict(connection, sql, row);
            Optional<String> expected = evaluated(rule, values, row);
            if (found.isPresent() && expected.isPresent()) {
              assertThat(found).as("%s%n%s%nrow %d", condition, sql, row + 1).isEqualTo(expected);
              compared++;
            }
          }
        }
      }
    }
    assertThat(compared).isGreaterThan(500);
  }
}
