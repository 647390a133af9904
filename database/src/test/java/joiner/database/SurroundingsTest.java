package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.Pottery;
import joiner.catalog.Catalog;
import joiner.catalog.Column;
import joiner.catalog.Generated;
import joiner.catalog.Surroundings;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.edit.ChangeField;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What stands around tables is read with what it is, and is there again after a change. */
class SurroundingsTest {
  @TempDir private static Path folder;

  private static final Field ID =
      Field.of("kiln_id", "Number", new FieldType.Counter(Width.BITS_32));
  private static final Field LITRES =
      Field.of("litres", "Litres", new FieldType.WholeNumber(Width.BITS_16));
  private static final Table KILN =
      Table.of("kiln", "Kiln", new Noun("kiln", "kilns"))
          .withFields(List.of(ID, LITRES))
          .withPrimaryKey(List.of(ID.id()));
  private static final Draft STUDIO =
      new Draft(Design.empty("s", "Studio").withTableAdded(KILN), SampleRows.NONE);

  private static void run(String url, String... statements) throws Exception {
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement()) {
      for (String sql : statements) {
        statement.execute(sql);
      }
    }
  }

  private static Catalog read(String url) throws Exception {
    return LiveTarget.read(Target.of(url), "", LiveTarget::read);
  }

  /**
   * A view, a trigger where the engine has them in SQL, a grant where it has people; the MariaDB of
   * the tests looks at none.
   */
  private static void surround(String engine, String url) throws Exception {
    run(url, "CREATE VIEW large_kiln AS SELECT kiln_id, litres FROM kiln WHERE litres > 100");
    switch (engine) {
      case "SQLite" ->
          run(
              url,
              "CREATE TRIGGER warm AFTER UPDATE ON kiln BEGIN"
                  + " UPDATE kiln SET litres = 5 WHERE litres < 5; END");
      case "MariaDB" ->
          run(
              url,
              "CREATE TRIGGER warm BEFORE INSERT ON kiln FOR EACH ROW SET NEW.litres = NEW.litres + 1");
      case "PostgreSQL" ->
          run(
              url,
              "CREATE FUNCTION warm() RETURNS trigger LANGUAGE plpgsql"
                  + " AS 'BEGIN RETURN NEW; END'",
              "CREATE TRIGGER warm BEFORE INSERT OR UPDATE ON kiln"
                  + " FOR EACH ROW EXECUTE FUNCTION warm()",
              "CREATE MATERIALIZED VIEW counted AS SELECT count(*) AS kilns FROM kiln",
              "GRANT SELECT ON kiln TO PUBLIC");
      case "H2" -> run(url, "CREATE USER potter PASSWORD 'p'", "GRANT SELECT ON kiln TO potter");
      default -> {}
    }
  }

  @Test
  void viewsTriggersAndGrantsAreReadWithWhatTheyAre() throws Exception {
    for (String url : Databases.fresh(folder)) {
      String engine = Shipment.dialectOf(url).engine();
      Shipment.ship(STUDIO, Target.of(url), RowsChoice.NONE, Progress.NONE);
      surround(engine, url);
      Surroundings around = read(url).around();
      Databases.drop(url);
      assertThat(around.views())
          .as(engine)
          .extracting(view -> view.name().toLowerCase(Locale.ROOT), View::stored)
          .contains(tuple("large_kiln", false))
          .hasSize(engine.equals("PostgreSQL") ? 2 : 1);
      switch (engine) {
        case "PostgreSQL" -> {
          assertThat(around.triggers())
              .extracting(Trigger::name, Trigger::table, Trigger::timing, Trigger::events)
              .containsExactly(
                  tuple(
                      "warm",
                      "kiln",
                      Trigger.Timing.BEFORE,
                      Set.of(Trigger.Event.INSERT, Trigger.Event.UPDATE)));
          assertThat(around.grants()).extracting(g -> g.to()).containsExactly("PUBLIC");
        }
        case "MariaDB" ->
            assertThat(around.triggers())
                .extracting(Trigger::name, Trigger::timing, Trigger::events)
                .containsExactly(
                    tuple("warm", Trigger.Timing.BEFORE, Set.of(Trigger.Event.INSERT)));
        case "SQLite" ->
            assertThat(around.triggers())
                .extracting(Trigger::name, Trigger::timing, Trigger::events)
                .containsExactly(tuple("warm", Trigger.Timing.AFTER, Set.of(Trigger.Event.UPDATE)));
        case "H2" ->
            assertThat(around.grants())
                .extracting(g -> g.to(), g -> g.privilege(), g -> g.on())
                .containsExactly(tuple("\"POTTER\"", "SELECT", "KILN"));
        default -> assertThat(around.triggers()).isEmpty();
      }
    }
  }

  /** The number counts no longer, for which every engine makes the table anew. */
  @Test
  void allOfItIsThereAgainAfterItsTableWasMadeAnew() throws Exception {
    Draft after =
        ChangeField.type(KILN, ID, new FieldType.WholeNumber(Width.BITS_32)).apply(STUDIO);
    for (String url : Databases.fresh(folder)) {
      var dialect = Shipment.dialectOf(url);
      Shipment.ship(STUDIO, Target.of(url), RowsChoice.NONE, Progress.NONE);
      surround(dialect.engine(), url);
      run(url, "INSERT INTO kiln (kiln_id, litres) VALUES (7, 120)");
      Surroundings around = read(url).around();
      SchemaScript script = SchemaScript.changing(STUDIO, after, around, dialect);
      assertThat(statements(script))
          .as(dialect.engine())
          .anyMatch(sql -> sql.startsWith("DROP TABLE kiln"));
      run(url, statements(script));
      assertThat(read(url).around()).as(dialect.engine()).isEqualTo(around);
      assertThat(Databases.column(url, "SELECT litres FROM large_kiln"))
          .as("triggers do not run when rows come back")
          .containsExactly(dialect.engine().equals("MariaDB") ? "121" : "120");
      Databases.drop(url);
    }
  }

  @Test
  void aCounterGoesOnAboveTheNumbersThatCameBack() throws Exception {
    Draft before =
        STUDIO.with(
            STUDIO.design(),
            new SampleRows(
                Map.of(
                    KILN.id(),
                    Pottery.rows(KILN, List.of(List.of("4", "120"), List.of("9", "80"))))));
    Draft after = ChangeField.type(KILN, ID, new FieldType.Counter(Width.BITS_64)).apply(before);
    for (String url : Databases.fresh(folder)) {
      var dialect = Shipment.dialectOf(url);
      Shipment.ship(before, Target.of(url), RowsChoice.ALL, Progress.NONE);
      run(url, statements(SchemaScript.changing(before, after, Surroundings.NONE, dialect)));
      run(url, "INSERT INTO kiln (litres) VALUES (60)");
      assertThat(Databases.column(url, "SELECT kiln_id FROM kiln ORDER BY kiln_id"))
          .as(dialect.engine())
          .containsExactly("4", "9", "10");
      Databases.drop(url);
    }
  }

  private static String[] statements(SchemaScript script) {
    var all = new ArrayList<>(script.opening());
    script.statements().forEach(statement -> all.add(statement.sql()));
    all.addAll(script.closing());
    return all.toArray(String[]::new);
  }

  @Test
  void aComputedColumnIsReadWithItsExpressionAndNoDefault() throws Exception {
    for (String url : Databases.fresh(folder)) {
      String engine = Shipment.dialectOf(url).engine();
      boolean virtual = engine.equals("DuckDB");
      run(
          url,
          "CREATE TABLE kiln (kiln_id integer PRIMARY KEY, litres integer NOT NULL,"
              + " half integer GENERATED ALWAYS AS (litres / 2)"
              + (engine.equals("H2") ? ")" : virtual ? " VIRTUAL)" : " STORED)"));
      List<Column> columns = read(url).tables().getFirst().columns();
      Databases.drop(url);
      Column half = columns.getLast();
      assertThat(half.generated().map(Generated::stored)).as(engine).contains(!virtual);
      assertThat(half.generated().map(Generated::sql).orElse(""))
          .as(engine)
          .containsIgnoringCase("litres")
          .contains("2");
      assertThat(half.defaultValue()).as(engine).isEmpty();
      assertThat(columns.get(1).generated()).isEqualTo(Optional.empty());
    }
  }
}
