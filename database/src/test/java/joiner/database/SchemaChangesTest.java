package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.RandomEdits;
import joiner.RandomEdits.Edited;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.audit.Violation;
import joiner.catalog.Surroundings;
import joiner.compare.Comparison;
import joiner.compare.Verification;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.ShippedRows;
import joiner.ddl.Statement;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A law: a database that was made from one design and changed by the script that leads to another
 * is what the other would have made of it, and its rows are what they were.
 */
class SchemaChangesTest {
  @TempDir private static Path folder;

  @Test
  void anyChangeOfASoundDesignIsMadeInTheDatabase() throws Exception {
    var problems = new ArrayList<String>();
    for (long seed : Tries.of(15).toArray()) {
      Draft before = SoundDesigns.draft(seed);
      Edited edited = RandomEdits.of(before, seed);
      for (String url : Databases.fresh(folder)) {
        Shipment.ship(before, Target.of(url), RowsChoice.NONE, Progress.NONE);
        changed(before, edited.draft(), url)
            .forEach(p -> problems.add("seed " + seed + " " + edited.done() + ", " + p));
        Databases.drop(url);
      }
    }
    assertThat(problems).isEmpty();
  }

  @Test
  void theStudiosRowsStayThroughAnyChangeTheyFit() throws Exception {
    var problems = new ArrayList<String>();
    Draft before = Pottery.demo();
    for (long seed : Tries.of(2).toArray()) {
      Edited edited = RandomEdits.of(before, seed);
      // Another key, or one of fewer fields, may not hold of the rows that are there.
      // What is missing in a new field gets its default there.
      boolean fits =
          Audit.of(edited.draft(), Pottery.CLOCK)
              .violations()
              .allMatch(v -> v.kind() == Violation.Kind.MISSING_REQUIRED);
      for (String url : Databases.fresh(folder)) {
        Shipment.ship(before, Target.of(url), RowsChoice.ALL, Progress.NONE);
        List<String> found = changed(before, edited.draft(), url);
        if (!fits) {
          assertThat(found)
              .as(url + " " + seed + ": rows that do not fit are refused")
              .isNotEmpty();
        } else if (found.isEmpty()) {
          assertRowsStayed(before, edited.draft(), url);
        } else {
          found.forEach(p -> problems.add("seed " + seed + " " + edited.done() + ", " + p));
        }
        Databases.drop(url);
      }
    }
    assertThat(problems).isEmpty();
  }

  private static void assertRowsStayed(Draft before, Draft after, String url) throws Exception {
    Draft live = LiveDesign.read(Target.of(url), "There", 100_000, Progress.NONE).draft();
    for (Table table : after.design().tables()) {
      if (before.design().find(table.id()).isPresent()) {
        Table old = before.design().table(table.id());
        List<Field> same =
            ShippedRows.fields(table).stream().filter(f -> old.hasField(f.id())).toList();
        List<String> names = same.stream().map(Field::name).toList();
        assertThat(LiveRows.values(table, names, live))
            .as(url + " " + table.name())
            .containsExactlyInAnyOrderElementsOf(LiveRows.values(table, names, after));
      }
    }
  }

  /** What is wrong after the change; nothing if all is well. */
  private static List<String> changed(Draft before, Draft after, String url) throws Exception {
    String engine = Shipment.dialectOf(url).engine();
    SchemaScript script =
        SchemaScript.changing(before, after, Surroundings.NONE, Shipment.dialectOf(url));
    String running = "";
    try (Connection connection = DriverManager.getConnection(url);
        java.sql.Statement statement = connection.createStatement()) {
      for (String sql : statements(script)) {
        running = sql;
        statement.execute(sql);
      }
    } catch (SQLException e) {
      return List.of(engine + ": " + e.getMessage() + "\n" + running + "\n" + script.text("T"));
    }
    var problems = new ArrayList<String>();
    Verification verification =
        LiveTarget.read(
            Target.of(url),
            "",
            live -> Verification.of(script.promise(), live.read(), live.dialect(), live));
    verification.differences().forEach(d -> problems.add(engine + ": " + d));
    LiveDesign live = LiveDesign.of(after, Target.of(url));
    Comparison.between(after, live.draft())
        .forEach(effect -> problems.add(engine + ", compared: " + effect.message()));
    live.notices().forEach(notice -> problems.add(engine + ", compared: " + notice));
    if (!problems.isEmpty()) {
      problems.add(script.text("T"));
    }
    return problems;
  }

  private static List<String> statements(SchemaScript script) {
    return Stream.of(
            script.opening(),
            script.statements().stream().map(Statement::sql).toList(),
            script.closing())
        .flatMap(List::stream)
        .toList();
  }
}
