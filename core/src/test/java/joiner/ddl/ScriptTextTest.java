package joiner.ddl;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What stands in scripts, and what is said not to. */
class ScriptTextTest {
  private static final List<Dialect> ALL =
      List.of(Dialects.POSTGRESQL, Dialects.SQLITE, Dialects.H2);

  private static Table kiln(Field... more) {
    var fields = new java.util.ArrayList<Field>();
    fields.add(Field.of("id", "Id", new FieldType.Counter(Width.BITS_32)).withRequired(true));
    fields.addAll(List.of(more));
    return Table.of("kiln", "Kiln", new Noun("kiln", "kilns"))
        .withFields(fields)
        .withPrimaryKey(List.of(new FieldId("id")));
  }

  private static SchemaScript script(Table table, Dialect dialect, Rows rows) {
    Design design = Design.empty("d", "D").withTableAdded(table);
    return SchemaScript.of(
        new Draft(design, new SampleRows(Map.of(table.id(), rows))), dialect, RowsChoice.ALL);
  }

  private static String create(Table table, Dialect dialect) {
    return script(table, dialect, Rows.NONE).statements().getFirst().sql();
  }

  /** Words within a value decide nothing. */
  @ParameterizedTest
  @CsvSource({"a PRIMARY KEY b", "PRIMARY KEY (x)", "CREATE TABLE t (", "CURRENT_DATE"})
  void aDefaultThatLooksLikeSqlChangesNothingElse(String text) {
    Field note =
        Field.of("note", "Note", new FieldType.Text(40))
            .withDefault(Optional.of(new Formula("'" + text + "'")));
    for (Dialect dialect : ALL) {
      String plain = create(kiln(Field.of("note", "Note", new FieldType.Text(40))), dialect);
      String with = create(kiln(note), dialect);
      assertThat(with.replace(" DEFAULT '" + text + "'", "")).isEqualTo(plain);
      assertThat(with).contains("PRIMARY KEY");
      assertThat(script(kiln(note), dialect, Rows.NONE).statements().getFirst().creates())
          .contains("kiln");
    }
    Table keyless = kiln(note).withPrimaryKey(List.of(new FieldId("note")));
    for (Dialect dialect : ALL) {
      assertThat(create(keyless, dialect)).contains("CONSTRAINT pk_kiln PRIMARY KEY (note)");
    }
  }

  @Test
  void aDefaultOfTwentyThousandCharactersIsWritten() {
    String text = "it''s ".repeat(4_000);
    Field note =
        Field.of("note", "Note", new FieldType.LongText())
            .withDefault(Optional.of(new Formula("'" + text + "'")));
    for (Dialect dialect : ALL) {
      assertThat(create(kiln(note), dialect)).contains(" DEFAULT '" + text + "'");
    }
  }

  @Test
  void defaultsThatAreComputedStandInBracketsOnSqlite() {
    Field day =
        Field.of("day", "Day", new FieldType.Date())
            .withDefault(Optional.of(new Formula("CURRENT_DATE + INTERVAL '7' DAY")));
    assertThat(create(kiln(day), Dialects.SQLITE))
        .contains("DEFAULT (date(CURRENT_DATE, '+7 days'))");
    Field today =
        Field.of("day", "Day", new FieldType.Date())
            .withDefault(Optional.of(new Formula("CURRENT_DATE")));
    assertThat(create(kiln(today), Dialects.SQLITE)).contains("DEFAULT CURRENT_DATE");
    Field less =
        Field.of("n", "N", new FieldType.WholeNumber(Width.BITS_32))
            .withDefault(Optional.of(new Formula("-5")));
    assertThat(create(kiln(less), Dialects.SQLITE)).contains("DEFAULT -5");
  }

  private static Optional<String> rule(Dialect dialect, String condition) {
    Table table =
        kiln(
                Field.of("n", "N", new FieldType.WholeNumber(Width.BITS_32)),
                Field.of("c", "C", new FieldType.Decimal(6, 2)),
                Field.of("t", "T", new FieldType.Text(9)),
                Field.of("d", "D", new FieldType.Date()),
                Field.of("z", "Z", new FieldType.DateTime(true)))
            .withRules(List.of(new Rule("r", "R", condition, "")));
    SchemaScript script = script(table, dialect, Rows.NONE);
    boolean told = script.shortfalls().stream().anyMatch(s -> s.subject().contains("the rule R"));
    String sql = script.statements().getFirst().sql();
    int at = sql.indexOf("CONSTRAINT r CHECK (");
    assertThat(at < 0).isEqualTo(told);
    return told ? Optional.empty() : Optional.of(sql.substring(at + 20, sql.lastIndexOf(")\n)")));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      quoteCharacter = '`',
      value = {
        "postgresql ~ t < 'b' ~ (t) COLLATE \"C\" < 'b'",
        "h2 ~ t < 'b' ~ t < 'b'",
        "sqlite ~ t < 'b' ~ t < 'b'",
        "postgresql ~ t = 'b' ~ t = 'b'",
        "postgresql ~ EXTRACT(YEAR FROM d) = 1 ~ CAST(EXTRACT(YEAR FROM d) AS integer) = 1",
        "h2 ~ EXTRACT(HOUR FROM z) = 1 ~ CAST(EXTRACT(HOUR FROM z AT TIME ZONE 'UTC') AS integer) = 1",
        "sqlite ~ EXTRACT(MONTH FROM d) = 1 ~ CAST(strftime('%m', d) AS integer) = 1",
        "sqlite ~ EXTRACT(DAY FROM d) = 1 ~ CAST(strftime('%d', d) AS integer) = 1",
        "h2 ~ c / 3 > 1 ~ CAST(c AS decfloat) / (3) > 1",
        "h2 ~ CHAR_LENGTH(t) > 1 ~ CHAR_LENGTH(t) > 1",
        "h2 ~ CHAR_LENGTH(t) + n > 1 ~ CAST(CHAR_LENGTH(t) AS integer) + n > 1",
        "sqlite ~ c / 3 > 1 ~ CAST(c AS real) / (3) > 1",
        "sqlite ~ n / 3 > 1 ~ n / 3 > 1",
        "sqlite ~ n / n > 1 ~ ",
        "sqlite ~ MOD(n, 3) = 1 ~ ((n) % (3)) = 1",
        "sqlite ~ MOD(3, n) = 1 ~ ",
        "sqlite ~ SUBSTRING(t FROM 2) = 'a' ~ substr(t, 2) = 'a'",
        "sqlite ~ SUBSTRING(t FROM n) = 'a' ~ ",
        "sqlite ~ SUBSTRING(t FROM 0 FOR 2) = 'a' ~ ",
        "h2 ~ SUBSTRING(t FROM 0 FOR 2) = 'a' ~ ",
        "postgresql ~ SUBSTRING(t FROM 0 FOR 2) = 'a' ~ SUBSTRING(t FROM 0 FOR 2) = 'a'",
        "sqlite ~ CAST(c AS VARCHAR) = '1' ~ CASE WHEN (c) IS NOT NULL THEN printf('%.2f', c) END = '1'",
        "postgresql ~ CAST(c AS VARCHAR) = '1' ~ CAST(c AS VARCHAR) = '1'",
        "sqlite ~ CAST(n AS VARCHAR) = '1' ~ CAST(n AS text) = '1'",
        "sqlite ~ t LIKE 'a%' ~ t GLOB 'a*'",
        "sqlite ~ t LIKE 'a!%' ESCAPE '!' ~ t GLOB 'a%'",
        "sqlite ~ t LIKE t ~ ",
        "sqlite ~ d + INTERVAL '1' MONTH > d ~ ",
        "sqlite ~ d - INTERVAL '7' DAY > d ~ date(d, '-7 days') > d",
        "sqlite ~ COALESCE(t) = 'a' ~ t = 'a'",
        "sqlite ~ CEILING(c) = 1 ~ ceil(c) = 1",
        "sqlite ~ POSITION('a' IN t) = 1 ~ instr(t, 'a') = 1",
        "sqlite ~ (n > 1) IS UNKNOWN ~ (n > 1) IS NULL",
        "sqlite ~ (n > 1) IS NOT TRUE ~ (n > 1) IS NOT TRUE",
        "h2 ~ t LIKE 'a\\b' ~ t LIKE 'a\\b' ESCAPE ''"
      })
  void aRuleIsWrittenAsTheEngineMeansItOrTold(String engine, String rule, String sql) {
    Dialect dialect = ALL.stream().filter(d -> d.id().equals(engine)).findFirst().orElseThrow();
    assertThat(rule(dialect, rule)).isEqualTo(Optional.ofNullable(sql));
  }

  @Test
  void decimalsOfSecondsThatAnEngineDropsAreTold() {
    Table table =
        kiln(
            Field.of("at", "At", new FieldType.DateTime(false)),
            Field.of("t", "T", new FieldType.Time()));
    FieldId at = new FieldId("at");
    FieldId time = new FieldId("t");
    Rows rows =
        Rows.NONE
            .withRow(Map.of(at, "2026-03-14T18:05:00.5", time, "18:05:00.25"))
            .withRow(Map.of(at, "2026-03-14T18:05:00", time, "18:05"))
            .withRow(Map.of(at, "2026-03-14T18:05:00.1234567"));
    assertThat(told(script(table, Dialects.POSTGRESQL, rows)))
        .containsExactly(
            "1 value of At of Kiln: PostgreSQL keeps 6 decimals of a second; what is beyond them is"
                + " dropped.");
    assertThat(told(script(table, Dialects.H2, rows)))
        .containsExactly(
            "1 value of At of Kiln: H2 keeps 6 decimals of a second; what is beyond them is dropped.",
            "1 value of T of Kiln: H2 keeps whole seconds; what is beyond them is dropped.");
    assertThat(told(script(table, Dialects.SQLITE, rows)))
        .containsExactly(
            "2 values of At of Kiln: SQLite keeps whole seconds; what is beyond them is dropped.",
            "1 value of T of Kiln: SQLite keeps whole seconds; what is beyond them is dropped.");
  }

  private static List<String> told(SchemaScript script) {
    return script.shortfalls().stream().map(s -> s.subject() + ": " + s.reason()).toList();
  }

  @Test
  void aCounterGoesOnAboveTheGreatestNumberOfTheRows() {
    FieldId id = new FieldId("id");
    Rows rows = Rows.NONE.withRow(Map.of(id, "7")).withRow(Map.of(id, "+12"));
    assertThat(script(kiln(), Dialects.H2, rows).statements())
        .extracting(Statement::sql)
        .contains("ALTER TABLE kiln ALTER COLUMN id RESTART WITH 13");
    assertThat(script(kiln(), Dialects.H2, Rows.NONE).statements()).hasSize(1);
  }

  @Test
  void boundsOfTextsAreInTheOrderOfCodePoints() {
    Field size =
        Field.of("size", "Size", new FieldType.Text(3)).withLimits(Limits.between("A", "M"));
    assertThat(create(kiln(size), Dialects.POSTGRESQL))
        .contains("CHECK ((size) COLLATE \"C\" >= 'A')", "CHECK ((size) COLLATE \"C\" <= 'M')");
  }
}
