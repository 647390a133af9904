package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import joiner.Formulas;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.compare.Verification;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.MediaType;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The engines themselves judge every script. */
class ShipmentTest {
  @TempDir private Path folder;

  private static Shipment ship(Draft draft, String url) throws TargetRefusedException {
    return Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
  }

  @Test
  void theDemoIsAcceptedAndReadBackWholeByEveryEngine() throws Exception {
    for (String url : Databases.fresh(folder)) {
      Shipment shipment = ship(Pottery.demo(), url);
      assertThat(shipment.verification().differences()).as(url).isEmpty();
      assertThat(shipment.verification().counts().get("tables").found()).isEqualTo(16);
      // Kilns that stand in for each other are a circle, which some engines do not declare.
      long told =
          SchemaScript.of(Pottery.demo(), Shipment.dialectOf(url), RowsChoice.ALL)
              .shortfalls()
              .stream()
              .filter(shortfall -> shortfall.subject().startsWith("the relationship "))
              .count();
      assertThat(shipment.verification().counts().get("relationships with their actions").found())
          .isEqualTo((int) (22 - told));
      assertThat(told).as(url).isLessThanOrEqualTo(1);
      assertThat(Databases.column(url, "SELECT COUNT(*) FROM piece WHERE stage = 'fired'"))
          .isNotEqualTo(List.of("0"));
    }
  }

  @Test
  void countersGoOnAboveTheHighestNumberShipped() throws Exception {
    for (String url : Databases.fresh(folder)) {
      ship(Pottery.demo(), url);
      try (Connection connection = DriverManager.getConnection(url);
          var statement = connection.createStatement()) {
        statement.execute("INSERT INTO supplier (name) VALUES ('Tidal Clays')");
      }
      assertThat(
              Databases.column(url, "SELECT supplier_id FROM supplier WHERE name = 'Tidal Clays'"))
          .as(url)
          .containsExactly("5");
    }
  }

  /** A pattern, which SQLite does not keep, and a kind of file, which no engine does. */
  private static final List<TableId> ONLY_AUDITED =
      List.of(new TableId("material"), new TableId("glaze"));

  @Test
  void everyEngineRefusesWhatTheAuditFinds() throws Exception {
    Draft broken = Pottery.broken();
    List<TableId> bad =
        Audit.of(broken, Pottery.CLOCK)
            .violations()
            .map(v -> v.table())
            .distinct()
            .filter(table -> !ONLY_AUDITED.contains(table))
            .toList();
    for (TableId table : bad) {
      Draft one =
          Pottery.demo()
              .withRows(Pottery.demo().rows().with(table, rows -> broken.rows().of(table)));
      for (String url : Databases.fresh(folder)) {
        assertThatThrownBy(() -> ship(one, url))
            .as(table + " in " + url)
            .isInstanceOf(TargetRefusedException.class);
      }
    }
  }

  @Test
  void aRefusedShipmentLeavesNothingBehind() throws Exception {
    Draft broken =
        Pottery.demo()
            .withRows(
                Pottery.demo()
                    .rows()
                    .with(
                        new TableId("piece"),
                        rows -> Pottery.broken().rows().of(new TableId("piece"))));
    for (String url : Databases.fresh(folder)) {
      assertThatThrownBy(() -> ship(broken, url))
          .isInstanceOfSatisfying(
              TargetRefusedException.class, e -> assertThat(e.getMessage()).contains("refused"));
      assertThat(ship(Pottery.demo(), url).verification().holds()).as(url).isTrue();
    }
  }

  @Test
  void aStoppedShipmentLeavesNothingBehind() throws Exception {
    for (String url : Databases.fresh(folder)) {
      assertThatThrownBy(
              () ->
                  Shipment.ship(
                      Pottery.demo(),
                      Target.of(url),
                      RowsChoice.ALL,
                      (done, total, doing) -> done < 9))
          .isInstanceOf(CancellationException.class);
      assertThat(ship(Pottery.demo(), url).verification().holds()).as(url).isTrue();
    }
  }

  @Test
  void anUnknownOrUnreachableTargetIsNamed() {
    assertThatThrownBy(() -> ship(Pottery.demo(), "jdbc:other:x"))
        .isInstanceOf(TargetRefusedException.class)
        .hasMessageContaining("jdbc:postgresql:");
    assertThatThrownBy(() -> ship(Pottery.demo(), "jdbc:postgresql://127.0.0.1:1/none"))
        .isInstanceOf(TargetRefusedException.class)
        .hasMessageContaining("cannot be reached");
  }

  /** A table of every type, names that need quoting, circles and all actions. */
  private static Draft hard() {
    var types =
        List.of(
            new FieldType.Text(30),
            new FieldType.LongText(),
            new FieldType.WholeNumber(Width.BITS_16),
            new FieldType.WholeNumber(Width.BITS_64),
            new FieldType.Decimal(8, 3),
            new FieldType.Money(12, 2),
            new FieldType.AnyNumber(),
            new FieldType.TrueFalse(),
            new FieldType.Date(),
            new FieldType.Time(),
            new FieldType.DateTime(false),
            new FieldType.DateTime(true),
            new FieldType.Uuid(),
            new FieldType.Email(60),
            new FieldType.WebAddress(90),
            new FieldType.Phone(20),
            new FieldType.FileReference(90),
            new FieldType.Content(MediaType.IMAGES, 2_000),
            FieldType.Choice.of(List.of("it's", "wet")));
    var names =
        List.of(
            "order",
            "Long Text",
            "value",
            "user",
            "ä\"b",
            "check",
            "x1",
            "select",
            "day",
            "time",
            "at",
            "zoned",
            "key",
            "e mail",
            "web",
            "phone",
            "file",
            "photo",
            "choice");
    var values =
        List.of(
            "O'Neil; DROP TABLE x",
            "🏺 wide\nand\ttabbed",
            "-32768",
            "9223372036854775807",
            "-12345.678",
            "1234567890.12",
            "3.25",
            "true",
            "2024-02-29",
            "23:59:59",
            "2026-03-14T18:05:00",
            "2026-03-14T18:05:00+02:00",
            "6f9619ff-8b86-4011-b42d-00c04fc964ff",
            "a@b.example",
            "https://x.example/?a=1",
            "+49 511 1",
            "p/q.png",
            "iVBORw0KGgoAAA==",
            "it's");
    var fields = new ArrayList<Field>();
    fields.add(Field.of("Id", "Id", new FieldType.Counter(Width.BITS_64)));
    for (int i = 0; i < types.size(); i++) {
      fields.add(
          Field.of(names.get(i), names.get(i), types.get(i))
              .withDescription("What's in \"" + names.get(i) + "\""));
    }
    fields.set(
        1, fields.get(1).withDefault(Optional.of(new Formula("'it''s'"))).withRequired(true));
    fields.set(3, fields.get(3).withDefault(Optional.of(new Formula("-5"))));
    fields.set(9, fields.get(9).withDefault(Optional.of(new Formula("CURRENT_DATE"))));
    fields.set(8, fields.get(8).withDefault(Optional.of(new Formula("FALSE"))));
    FieldId parent = new FieldId("parent");
    fields.add(Field.of("parent", "Parent", new FieldType.WholeNumber(Width.BITS_64)));
    Table all =
        Table.of("Table", "All", new Noun("thing", "things"))
            .withFields(fields)
            .withPrimaryKey(List.of(new FieldId("Id")))
            .withDescription("It's all")
            .withUniqueKeys(
                List.of(
                    new UniqueKey(
                        "uq " + "x".repeat(80), List.of(new FieldId("order"), new FieldId("day")))))
            .withIndexes(
                List.of(new Index("group", List.of(new FieldId("value"), new FieldId("user")))))
            .withRules(
                List.of(
                    new Rule(
                        "r'1",
                        "One",
                        "\"order\" <> 'x''y' AND (value < 5 OR \"Long Text\" IS NULL)",
                        "")));
    Table kiln = small("kiln", "firing_id");
    Table firing = small("firing", "kiln_id");
    var self =
        Relationship.of("fk self", all.id(), List.of(parent), all.id(), List.of(new FieldId("Id")))
            .withActions(ReferentialAction.SET_NULL, ReferentialAction.CASCADE);
    var there =
        Relationship.of(
                "fk_a",
                kiln.id(),
                List.of(new FieldId("firing_id")),
                firing.id(),
                List.of(new FieldId("id")))
            .withActions(ReferentialAction.CASCADE, ReferentialAction.NO_ACTION);
    var back =
        Relationship.of(
                "fk_b",
                firing.id(),
                List.of(new FieldId("kiln_id")),
                kiln.id(),
                List.of(new FieldId("id")))
            .withActions(ReferentialAction.RESTRICT, ReferentialAction.SET_DEFAULT);
    Design design =
        Design.empty("hard", "Hard")
            .withTableAdded(all)
            .withTableAdded(kiln)
            .withTableAdded(firing)
            .withRelationships(List.of(self, there, back));
    var first = new ArrayList<>(List.of("1"));
    first.addAll(values);
    first.add("2");
    var second = new ArrayList<>(first);
    second.set(0, "2");
    second.set(1, "plain");
    second.set(second.size() - 1, "1");
    return new Draft(
        design,
        new SampleRows(
            Map.of(
                all.id(),
                Pottery.rows(all, List.of(first, second)),
                kiln.id(),
                Pottery.rows(kiln, List.of(List.of("1", "1"))),
                firing.id(),
                Pottery.rows(firing, List.of(List.of("1", "1"))))));
  }

  private static Table small(String name, String link) {
    return Table.of(name, name, new Noun(name, name + "s"))
        .withFields(
            List.of(
                Field.of("id", "Id", new FieldType.WholeNumber(Width.BITS_32)),
                Field.of(link, link, new FieldType.WholeNumber(Width.BITS_32))))
        .withPrimaryKey(List.of(new FieldId("id")));
  }

  @Test
  void everyTypeNameAndCircleIsAcceptedAndReadBack() throws Exception {
    for (String url : Databases.fresh(folder)) {
      assertThat(ship(hard(), url).verification().differences()).as(url).isEmpty();
      String order = "SELECT \"order\" FROM \"Table\" WHERE \"Id\" = 1";
      assertThat(Databases.column(url, order)).as(url).containsExactly("O'Neil; DROP TABLE x");
    }
  }

  @Test
  void aMissingElementIsADifference() throws Exception {
    var litres = new Index("ix_kiln_litres", List.of(new FieldId("litres")));
    Table kiln = Pottery.demo().design().table(new TableId("kiln"));
    Draft draft = joiner.edit.ChangeTable.addIndex(kiln, litres).apply(Pottery.demo());
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = LiveTarget.dialectOf(url);
      SchemaScript script = SchemaScript.of(draft, dialect, RowsChoice.NONE);
      try (LiveTarget live = LiveTarget.connect(Target.of(url))) {
        for (var statement : script.statements()) {
          String sql =
              statement
                  .sql()
                  .replaceAll(",\\s+CONSTRAINT ends_after_it_starts CHECK \\([^)]*\\)", "")
                  .replace("varchar(40)", "varchar(41)")
                  .replace("length(name) <= 40", "length(name) <= 41");
          if (!sql.startsWith("CREATE INDEX ix_kiln")) {
            live.run(sql);
          }
        }
        var differences =
            Verification.of(script.promise(), live.read(), dialect, live).differences();
        assertThat(differences)
            .as(url)
            .anyMatch(d -> d.toLowerCase(java.util.Locale.ROOT).contains("ends_after_it_starts"))
            .anyMatch(d -> d.contains("varchar(41)") || d.contains("_name_type"))
            .anyMatch(d -> d.toLowerCase(java.util.Locale.ROOT).contains("index on [litres]"));
      }
    }
  }

  /**
   * The rule evaluator and the engines give the same verdict on every row, also where parts are
   * empty.
   */
  @Test
  void theEvaluatorAgreesWithEveryEngine() throws Exception {
    Table firing = Pottery.firing().withPrimaryKey(List.of(new FieldId("firing_id")));
    var rows =
        List.of(
            List.of(
                "1",
                "Big Tom",
                "1222",
                "12.50",
                "2026-09-30",
                "2026-09-30T18:05:00",
                "2026-10-01T07:40:00",
                "true"),
            List.of("2", "", "", "", "", "", "", ""),
            List.of(
                "3",
                "ember_1",
                "0",
                "0",
                "2024-02-29",
                "2024-02-29T00:00:00",
                "2024-02-29T00:00:00",
                "false"),
            List.of(
                "4", "Ash*?[x]", "-7", "-2.25", "1999-12-31", "1999-12-31T23:59:59", "", "true"));
    Draft draft =
        new Draft(
            Design.empty("d", "D").withTableAdded(firing),
            new SampleRows(Map.of(firing.id(), Pottery.rows(firing, rows))));
    var conditions =
        List.of(
            "ended_at > started_at",
            "peak_c BETWEEN 0 AND 1222",
            "kiln LIKE 'Big%'",
            "kiln LIKE 'big%'",
            "kiln LIKE '%!_1' ESCAPE '!'",
            "kiln LIKE '%*?[x]'",
            "kiln NOT LIKE 'A%'",
            "glazed IS NOT TRUE",
            "NOT glazed",
            "glazed AND peak_c > 0",
            "peak_c / 2 * 2 = peak_c",
            "cost / 2 = 6.25",
            "cost * 2 + 1 > peak_c",
            "day = started_at",
            "day + INTERVAL '1' DAY > started_at",
            "started_at - INTERVAL '90' MINUTE < day",
            "EXTRACT(YEAR FROM day) = 2024",
            "EXTRACT(HOUR FROM started_at) = 18",
            "CHAR_LENGTH(kiln) > 6",
            "UPPER(kiln) = 'BIG TOM'",
            "SUBSTRING(kiln FROM 5 FOR 3) = 'Tom'",
            "POSITION('T' IN kiln) = 5",
            "COALESCE(peak_c, 5) > 4",
            "NULLIF(peak_c, 0) IS NULL",
            "CASE WHEN peak_c > 1000 THEN 'hot' WHEN peak_c IS NULL THEN 'none' ELSE 'warm' END = 'hot'",
            "peak_c IN (0, 1222, NULL)",
            "peak_c NOT IN (1, NULL)",
            "(peak_c > 0) IS UNKNOWN",
            "MOD(peak_c, 4) = 2",
            "ABS(peak_c) = 7",
            "FLOOR(cost) = -3",
            "CEILING(cost) = 13",
            "kiln || '!' = 'Big Tom!'",
            "CAST(peak_c AS VARCHAR) = '1222'",
            "-peak_c = 7",
            "peak_c = 1 OR peak_c IS NULL AND NOT (cost > 1)",
            "TRIM(kiln) = kiln",
            "day < CURRENT_DATE + INTERVAL '400' DAY",
            "1 - 2 - 3 = peak_c + 3");
    for (String url : Databases.fresh(folder)) {
      ship(draft, url);
      Dialect dialect = Shipment.dialectOf(url);
      for (String condition : conditions) {
        Checked.Sound sound = (Checked.Sound) Formulas.condition(condition, firing);
        String sql = ((Support.Kept) dialect.sayCondition(sound.tree())).sql();
        var expected = new ArrayList<String>();
        var values = new joiner.rows.RowValues(firing, draft.rows().of(firing.id()));
        for (int row = 0; row < rows.size(); row++) {
          expected.add(
              String.valueOf(
                  new joiner.expression.Evaluator(java.time.Clock.systemUTC())
                      .evaluate(sound.tree(), values.row(row))));
        }
        String query =
            "SELECT CASE WHEN "
                + sql
                + " THEN 'Bool[truth=true]' WHEN NOT ("
                + sql
                + ") THEN 'Bool[truth=false]' ELSE 'Null[]' END FROM firing ORDER BY firing_id";
        assertThat(Databases.column(url, query)).as(condition + " in " + url).isEqualTo(expected);
      }
    }
  }

  @Test
  void whatATargetCannotExpressStandsAtTheTopOfTheScript() {
    SchemaScript script = SchemaScript.of(Pottery.demo(), Dialects.SQLITE, RowsChoice.NONE);
    assertThat(script.text("T").lines().limit(4))
        .anyMatch(line -> line.contains("Not kept by the database"));
    assertThat(script.shortfalls())
        .anyMatch(s -> s.subject().equals("the pattern of Mark of Piece"));
  }

  @Test
  void anAddressWithoutItsSignIsRefusedByEveryEngine() throws Exception {
    for (String url : Databases.fresh(folder)) {
      ship(Pottery.demo(), url);
      for (String address : List.of("odo", "@x", "odo@", "a@b@c", "a b@c")) {
        try (Connection connection = DriverManager.getConnection(url);
            var statement = connection.createStatement()) {
          assertThatThrownBy(
                  () ->
                      statement.execute(
                          "UPDATE member SET email = '" + address + "' WHERE member_id = 1"))
              .as(url + address)
              .isInstanceOf(SQLException.class);
        }
      }
    }
  }

  /** PostgreSQL's own list of key words says which names need quotes. */
  @Test
  void namesAreQuotedExactlyWherePostgresqlQuotesThem() throws SQLException {
    Optional<String> postgres =
        Databases.fresh(folder).stream().filter(u -> u.startsWith("jdbc:postgresql:")).findFirst();
    assumeTrue(postgres.isPresent(), "only some engines were asked for");
    String url = postgres.get();
    List<String> reserved =
        Databases.column(url, "SELECT word FROM pg_get_keywords() WHERE catcode IN ('R', 'T')");
    List<String> free =
        Databases.column(url, "SELECT word FROM pg_get_keywords() WHERE catcode IN ('U', 'C')");
    assertThat(reserved).allMatch(joiner.engine.Dialects.POSTGRESQL.identifiers()::needsQuotes);
    assertThat(free).noneMatch(joiner.engine.Dialects.POSTGRESQL.identifiers()::needsQuotes);
  }

  @Test
  void theSameDesignGivesTheSameScript() {
    for (Dialect dialect : Dialects.ALL) {
      assertThat(SchemaScript.of(Pottery.demo(), dialect, RowsChoice.ALL).text("T"))
          .isEqualTo(SchemaScript.of(Pottery.demo(), dialect, RowsChoice.ALL).text("T"));
    }
  }
}
