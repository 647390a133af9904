package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import joiner.Pottery;
import joiner.Tries;
import joiner.compare.Comparison;
import joiner.compare.Effect;
import joiner.compare.Risk;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LiveDesignTest {
  @TempDir private static Path folder;

  private static LiveDesign read(String url, int rows) throws TargetRefusedException {
    return LiveDesign.read(Target.of(url), "Read back", rows, Progress.NONE);
  }

  private static void run(String url, String... statements) throws Exception {
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement()) {
      for (String sql : statements) {
        statement.execute(sql);
      }
    }
  }

  /** How many relationships the engine keeps; that of others is told. */
  private static int promised(Draft draft, String url) throws TargetRefusedException {
    return SchemaScript.of(draft, Shipment.dialectOf(url), RowsChoice.NONE)
        .promise()
        .tables()
        .stream()
        .mapToInt(table -> table.foreignKeys().size())
        .sum();
  }

  /** Views, triggers and computed columns are none of a design; that they are there is told. */
  @Test
  void whatADesignHasNoWordForIsNamed() throws Exception {
    for (String url : Databases.fresh(folder)) {
      String engine = Shipment.dialectOf(url).engine();
      run(
          url,
          "CREATE TABLE kiln (kiln_id integer PRIMARY KEY, litres integer NOT NULL,"
              + " half integer GENERATED ALWAYS AS (litres / 2)"
              + (engine.equals("H2") ? ")" : engine.equals("DuckDB") ? " VIRTUAL)" : " STORED)"),
          "CREATE VIEW large_kiln AS SELECT kiln_id FROM kiln WHERE litres > 100");
      triggers(engine, url);
      LiveDesign read = read(url, 0);
      Databases.drop(url);
      assertThat(read.draft().design().tables()).hasSize(1);
      assertThat(read.draft().design().tables().iterator().next().fields()).hasSize(3);
      List<String> told = read.notices().stream().map(n -> n.toLowerCase(Locale.ROOT)).toList();
      assertThat(told)
          .as(engine)
          .anyMatch(n -> n.startsWith("the view large_kiln is not taken along: "));
      Field half = read.draft().design().tables().iterator().next().fields().get(2);
      assertThat(half.origin().workedOutBy().map(Formula::text))
          .as(engine)
          .hasValueSatisfying(
              text -> assertThat(text).containsIgnoringCase("litres").contains("/ 2"));
      if (!engine.equals("DuckDB") && !engine.equals("H2")) {
        assertThat(told)
            .as(engine)
            .anyMatch(n -> n.startsWith("the trigger warm of kiln is not taken along: "));
      }
    }
  }

  /** H2 has triggers in Java only, DuckDB none. */
  private static void triggers(String engine, String url) throws Exception {
    switch (engine) {
      case "SQLite" ->
          run(url, "CREATE TRIGGER warm AFTER INSERT ON kiln BEGIN DELETE FROM kiln; END");
      case "MariaDB" ->
          run(url, "CREATE TRIGGER warm BEFORE INSERT ON kiln FOR EACH ROW SET NEW.litres = 5");
      case "PostgreSQL" ->
          run(
              url,
              "CREATE FUNCTION warm() RETURNS trigger LANGUAGE plpgsql"
                  + " AS 'BEGIN RETURN NEW; END'",
              "CREATE TRIGGER warm BEFORE INSERT ON kiln FOR EACH ROW EXECUTE FUNCTION warm()");
      default -> {}
    }
  }

  /**
   * A law: a design read from a database can be shipped to another one of that engine, where it is
   * the same.
   */
  @Test
  void aDesignReadFromADatabaseCanBeShippedAgain() throws Exception {
    var problems = new ArrayList<String>();
    for (long seed : Tries.of(12).toArray()) {
      Draft draft = SoundDesigns.draft(seed);
      List<String> others = Databases.fresh(folder);
      for (String url : Databases.fresh(folder)) {
        Shipment.ship(draft, Target.of(url), RowsChoice.NONE, Progress.NONE);
        Draft read = read(url, 0).draft();
        Databases.drop(url);
        assertThat(read.design().tables()).hasSameSizeAs(draft.design().tables());
        assertThat(read.design().relationships()).hasSize(promised(draft, url));
        String engine = Shipment.dialectOf(url).engine();
        String other = others.stream().filter(u -> sameEngine(u, engine)).findFirst().orElseThrow();
        try {
          Shipment.ship(read, Target.of(other), RowsChoice.NONE, Progress.NONE);
          for (Effect effect :
              Comparison.between(read, LiveDesign.of(read, Target.of(other)).draft())) {
            problems.add("seed " + seed + ", " + engine + ": " + effect.message());
          }
        } catch (TargetRefusedException e) {
          problems.add("seed " + seed + ", " + engine + ": " + e.getMessage() + e.statement());
        }
      }
      for (String other : others) {
        Databases.drop(other);
      }
    }
    assertThat(problems).isEmpty();
  }

  private static boolean sameEngine(String url, String engine) {
    try {
      return Shipment.dialectOf(url).engine().equals(engine);
    } catch (TargetRefusedException e) {
      throw new AssertionError(e);
    }
  }

  @Test
  void theStudioComesBackWithItsRows() throws Exception {
    Draft demo = Pottery.demo();
    for (String url : Databases.fresh(folder)) {
      String engine = Shipment.dialectOf(url).engine();
      Shipment.ship(demo, Target.of(url), RowsChoice.ALL, Progress.NONE);
      LiveDesign live = read(url, 1_000);
      Design design = live.draft().design();
      assertThat(design.tables()).as(engine).hasSize(demo.design().tables().size());
      for (Table table : demo.design().tables()) {
        Table is = design.tableNamed(table.name()).orElseThrow();
        assertThat(is.namesOf(is.primaryKey())).isEqualTo(table.namesOf(table.primaryKey()));
        assertThat(live.draft().rows().of(is.id()).count())
            .as(engine + " " + table.name())
            .isEqualTo(demo.rows().of(table.id()).count());
      }
      Table join = design.tableNamed("piece_glaze").orElseThrow();
      assertThat(join.kind()).isInstanceOf(TableKind.Join.class);
      Databases.drop(url);
    }
  }

  @Test
  void theStudioWithItsRowsDiffersInNothingFromWhereItWasShipped() throws Exception {
    Draft demo = Pottery.demo();
    for (String url : Databases.fresh(folder)) {
      Shipment.ship(demo, Target.of(url), RowsChoice.ALL, Progress.NONE);
      LiveDesign live = LiveDesign.of(demo, Target.of(url));
      assertThat(Comparison.between(demo, live.draft())).as(url).isEmpty();
      assertThat(live.notices()).as(url).isEmpty();
      Databases.drop(url);
    }
  }

  /** SQLite's and DuckDB's drivers do not say in what direction an index stands. */
  @Test
  void theDirectionOfAnIndexComesBackWhereDriversTellIt() throws Exception {
    TableId firing = new TableId("firing");
    FieldId started = new FieldId("started_at");
    Draft demo = Pottery.demo();
    var index =
        new Index("ix_firing_latest", List.of(new FieldId("kiln_id"), started))
            .withDescending(Set.of(started));
    Draft indexed = demo.withDesign(demo.design().withTable(firing, t -> t.withIndexAdded(index)));
    for (String url : Databases.fresh(folder)) {
      Shipment.ship(indexed, Target.of(url), RowsChoice.NONE, Progress.NONE);
      LiveDesign live = LiveDesign.read(Target.of(url), "There", 0, Progress.NONE);
      Table table = live.draft().design().tableNamed("firing").orElseThrow();
      Index there =
          table.indexes().stream()
              .filter(i -> i.name().equalsIgnoreCase("ix_firing_latest"))
              .findFirst()
              .orElseThrow();
      assertThat(table.namesOf(List.copyOf(there.descending())))
          .as(url)
          .isEqualTo(url.matches("jdbc:(sqlite|duckdb):.*") ? List.of() : List.of("started_at"));
      Databases.drop(url);
    }
  }

  @Test
  void whatSomebodyChangedThereIsToldWithItsRisk() throws Exception {
    Draft demo = Pottery.demo();
    for (String url : Databases.fresh(folder)) {
      if (url.matches("jdbc:(sqlite|mariadb|duckdb):.*")) {
        continue; // They alter tables in other words, or less.
      }
      Shipment.ship(demo, Target.of(url), RowsChoice.NONE, Progress.NONE);
      run(
          url,
          "ALTER TABLE kiln ADD COLUMN colour varchar(20)",
          "ALTER TABLE kiln DROP COLUMN litres",
          "CREATE TABLE tool (tool_id integer PRIMARY KEY, name varchar(40) NOT NULL)",
          "ALTER TABLE member ALTER COLUMN phone SET NOT NULL");
      LiveDesign live = LiveDesign.of(demo, Target.of(url));
      assertThat(Comparison.between(demo, live.draft()))
          .extracting(
              e -> e.risk() + " " + e.kind() + " " + e.table().orElse("").toLowerCase(Locale.ROOT))
          .contains(
              Risk.ADDS + " " + Effect.Kind.FIELD_ADDED + " kiln",
              Risk.LOSES + " " + Effect.Kind.FIELD_REMOVED + " kiln",
              Risk.ADDS + " " + Effect.Kind.TABLE_ADDED + " tool",
              Risk.REFUSES + " " + Effect.Kind.FIELD_CHANGED + " member");
      Databases.drop(url);
    }
  }

  @Test
  void whatIsNotUnderstoodIsNamed() throws Exception {
    for (String url : Databases.fresh(folder)) {
      if (!url.startsWith("jdbc:postgresql:")) {
        continue;
      }
      run(
          url,
          "CREATE TABLE shelf (shelf_id int PRIMARY KEY, place point,"
              + " marks int[] DEFAULT '{}', state varchar(9) CHECK (state IN ('raw', 'fired')),"
              + " litres int CHECK (litres BETWEEN 5 AND 900),"
              + " name text DEFAULT upper('x') CHECK (name ~ '^[a-z]+$' OR md5(name) = ''),"
              + " made timestamptz DEFAULT now())");
      LiveDesign live = read(url, 10);
      Table shelf = live.draft().design().tableNamed("shelf").orElseThrow();
      Field state = shelf.fieldNamed("state").orElseThrow();
      assertThat(state.type()).isEqualTo(FieldType.Choice.of(List.of("raw", "fired")));
      Field litres = shelf.fieldNamed("litres").orElseThrow();
      assertThat(litres.limits().minimum()).contains("5");
      assertThat(litres.limits().maximum()).contains("900");
      assertThat(shelf.fieldNamed("made").orElseThrow().defaultValue()).isPresent();
      assertThat(live.notices())
          .anyMatch(n -> n.contains("shelf.place has the type point"))
          .anyMatch(n -> n.contains("md5"));
      Databases.drop(url);
    }
  }

  @Test
  void readingMakesNoDatabase() {
    Path none = folder.resolve("none.sqlite");
    assertThatThrownBy(() -> read("jdbc:sqlite:" + none, 0))
        .isInstanceOf(TargetRefusedException.class);
    assertThatThrownBy(() -> read("jdbc:h2:" + folder.resolve("none"), 0))
        .isInstanceOf(TargetRefusedException.class);
    assertThat(Files.exists(none)).isFalse();
    assertThat(Files.exists(folder.resolve("none.mv.db"))).isFalse();
  }
}
