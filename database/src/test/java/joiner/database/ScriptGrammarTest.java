package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.RandomEdits;
import joiner.Tries;
import joiner.catalog.Surroundings;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.Statement;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.Draft;
import org.apache.shardingsphere.infra.database.core.type.DatabaseType;
import org.apache.shardingsphere.infra.spi.type.typed.TypedSPILoader;
import org.apache.shardingsphere.sql.parser.api.CacheOption;
import org.apache.shardingsphere.sql.parser.api.SQLParserEngine;
import org.apache.shardingsphere.sql.parser.exception.SQLParsingException;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Scripts for engines that cannot run here, judged by the grammars that Apache ShardingSphere 5.5.2
 * has of them (Apache License 2.0). A grammar sees no types and no names that are missing. What it
 * is known to refuse although the engine takes it is left out.
 */
class ScriptGrammarTest {
  /** What a grammar does not know of its engine. */
  private record Gaps(String grammar, Pattern statements, Pattern wordsItReserves) {}

  private static final Map<Dialect, Gaps> GAPS =
      Map.of(
          Dialects.SQL_SERVER,
          new Gaps(
              "SQLServer",
              Pattern.compile(
                  "(?s)SET .*|DECLARE .*|EXEC .*|CREATE UNIQUE INDEX .* WHERE .*|CREATE TRIGGER .*"),
              Pattern.compile("\\b(?<!['\"])(session|mark)\\b(?![\"'])")),
          Dialects.ORACLE,
          new Gaps(
              "Oracle",
              Pattern.compile(
                  "(?s)ALTER TABLE .* MODIFY \\(.* GENERATED .*"
                      // No set function has a name of its own there.
                      + "|CREATE VIEW .*(COUNT|SUM|MIN|MAX|LISTAGG)\\(.*"
                      // Nor does a query give its value to the new row.
                      + "|CREATE TRIGGER .* INTO :NEW\\..*"),
              Pattern.compile("\\b(?<!['\"])(mark)\\b(?![\"'])")));

  private static final Pattern QUOTED = Pattern.compile("'(?:[^']|'')*'|\"((?:[^\"]|\"\")*)\"");

  /**
   * The grammars know few characters within names, no characters by their number, no precision of
   * days, nobody who asks as a default, and backslashes as escapes.
   */
  private static String withPlainNames(String sql) {
    return QUOTED
        .matcher(
            sql.replace("NCHAR(", "LOWER(")
                .replace("\\", "/")
                .replace("day(0) to", "day to")
                .replace("(CURRENT_USER)", "('somebody')"))
        .replaceAll(
            quoted ->
                Matcher.quoteReplacement(
                    quoted.group(1) == null
                        ? quoted.group()
                        : "\"" + quoted.group(1).replaceAll("[^\\p{L}\\d_ ,.]", "_") + "\""));
  }

  private static Stream<Dialect> judged() {
    return Stream.of(Dialects.SQL_SERVER, Dialects.ORACLE);
  }

  private static SQLParserEngine parser(Dialect dialect) {
    String grammar = GAPS.get(dialect).grammar();
    return new SQLParserEngine(
        TypedSPILoader.getService(DatabaseType.class, grammar), new CacheOption(1, 1));
  }

  private static List<String> refused(SchemaScript script, SQLParserEngine parser) {
    Gaps gaps = GAPS.get(script.dialect());
    var refused = new ArrayList<String>();
    for (Statement statement : script.statements()) {
      if (gaps.statements().matcher(statement.sql()).matches()) {
        continue;
      }
      String sql =
          gaps.wordsItReserves().matcher(withPlainNames(statement.sql())).replaceAll("\"$1\"");
      try {
        parser.parse(sql, false);
      } catch (SQLParsingException e) {
        refused.add(e.getMessage() + "\n" + sql);
      }
    }
    return refused;
  }

  @ParameterizedTest
  @MethodSource("judged")
  void theStudiosScriptIsGrammatical(Dialect dialect) {
    SchemaScript script = SchemaScript.of(Pottery.demo(), dialect, RowsChoice.LOOKUPS);
    assertThat(refused(script, parser(dialect))).isEmpty();
    assertThat(refused(wrong(script), parser(dialect)))
        .as("it is no judge of nothing")
        .isNotEmpty();
  }

  /** The same script with a mistake in it. */
  private static SchemaScript wrong(SchemaScript script) {
    var statements = new ArrayList<>(script.statements());
    Statement first = statements.getFirst();
    String sql = first.sql().replaceFirst(" NOT NULL,", " NOT NULL NOT,");
    statements.set(
        0, new Statement(first.section(), first.comment(), sql, first.creates(), first.loads()));
    return new SchemaScript(
        script.dialect(), List.of(), statements, List.of(), List.of(), List.of(), script.promise());
  }

  @ParameterizedTest
  @MethodSource("judged")
  void everySoundDesignsScriptIsGrammatical(Dialect dialect) {
    SQLParserEngine parser = parser(dialect);
    var problems = new ArrayList<String>();
    for (long seed : Tries.of(25).toArray()) {
      SchemaScript script = SchemaScript.of(SoundDesigns.draft(seed), dialect, RowsChoice.NONE);
      refused(script, parser).forEach(problem -> problems.add("seed " + seed + ": " + problem));
    }
    assertThat(problems).isEmpty();
  }

  @ParameterizedTest
  @MethodSource("judged")
  void everyChangeOfASoundDesignIsGrammatical(Dialect dialect) {
    SQLParserEngine parser = parser(dialect);
    var problems = new ArrayList<String>();
    for (long seed : Tries.of(25).toArray()) {
      Draft before = SoundDesigns.draft(seed);
      Draft after = RandomEdits.of(before, seed).draft();
      SchemaScript script = SchemaScript.changing(before, after, Surroundings.NONE, dialect);
      refused(script, parser).forEach(problem -> problems.add("seed " + seed + ": " + problem));
    }
    assertThat(problems).isEmpty();
  }
}
