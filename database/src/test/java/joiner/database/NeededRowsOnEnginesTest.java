package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.ddl.Lowered;
import joiner.ddl.RowsChoice;
import joiner.ddl.Shortfall;
import joiner.engine.Dialect;
import joiner.meaning.Draft;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * In the demo each glaze has at least one recipe line. PostgreSQL keeps that, with several people
 * at work, too; of the others it is told that they do not.
 */
class NeededRowsOnEnginesTest {
  private static final String NAMED = "each glaze has a recipe line";
  private static final String GLAZE =
      "INSERT INTO glaze (glaze_id, name, cone_no) SELECT 900, 'Iron night', cone_no"
          + " FROM glaze LIMIT 1";
  private static final String LINE =
      "INSERT INTO recipe_line SELECT 900, material_id, percentage FROM recipe_line LIMIT 1";

  /** What a recipe makes up is another test's. */
  private static final Draft DEMO =
      Pottery.demo()
          .withDesign(
              Pottery.demo()
                  .design()
                  .withTable(new TableId("glaze"), table -> table.withRules(List.of())));

  @TempDir private Path folder;

  private static void run(Connection connection, String... statements) throws SQLException {
    try (var statement = connection.createStatement()) {
      for (String sql : statements) {
        statement.execute(sql);
      }
    }
  }

  private interface On {
    void run(Connection connection) throws Exception;
  }

  private void onPostgreSql(On what) throws Exception {
    for (String url : Databases.fresh(folder)) {
      if (url.startsWith("jdbc:postgresql:")) {
        var shipped = Shipment.ship(DEMO, Target.of(url), RowsChoice.ALL, Progress.NONE);
        assertThat(shipped.verification().differences()).isEmpty();
        try (Connection connection = DriverManager.getConnection(url)) {
          connection.setAutoCommit(false);
          what.run(connection);
        }
      }
      Databases.drop(url);
    }
  }

  @Test
  void aRowIsRefusedWithoutWhatItMustHave() throws Exception {
    onPostgreSql(
        connection -> {
          run(connection, GLAZE);
          assertThatThrownBy(connection::commit).hasMessageContaining(NAMED);
          run(connection, GLAZE, LINE);
          assertThatCode(connection::commit).doesNotThrowAnyException();
          run(connection, "DELETE FROM recipe_line WHERE glaze_id = 900");
          assertThatThrownBy(connection::commit).hasMessageContaining(NAMED);
          String others = "SELECT r.glaze_id FROM recipe_line r WHERE r.material_id = ";
          String other = "SELECT MIN(glaze_id) FROM glaze WHERE glaze_id NOT IN (";
          run(
              connection,
              "UPDATE recipe_line l SET glaze_id = ("
                  + other
                  + others
                  + "l.material_id)) WHERE glaze_id = 900");
          assertThatThrownBy(connection::commit).hasMessageContaining(NAMED);
          run(connection, "DELETE FROM recipe_line WHERE glaze_id = 900", LINE);
          assertThatCode(connection::commit).doesNotThrowAnyException();
          run(connection, "DELETE FROM glaze WHERE glaze_id = 900");
          assertThatCode(connection::commit).doesNotThrowAnyException();
        });
  }

  /** Each of them sees the line that the other takes away. */
  @Test
  void twoPeopleDoNotTakeTheLastTwoRowsAway() throws Exception {
    onPostgreSql(
        one -> {
          String more = "INSERT INTO recipe_line SELECT 900, material_id + 1, percentage FROM ";
          run(one, GLAZE, LINE, more + "recipe_line WHERE glaze_id = 900");
          one.commit();
          try (Connection other = DriverManager.getConnection(one.getMetaData().getURL())) {
            other.setAutoCommit(false);
            String lines = " FROM recipe_line WHERE glaze_id = 900)";
            String last = "DELETE FROM recipe_line WHERE glaze_id = 900 AND material_id = ";
            run(one, last + "(SELECT MIN(material_id)" + lines);
            run(other, last + "(SELECT MAX(material_id)" + lines);
            run(one, "SET CONSTRAINTS ALL IMMEDIATE"); // Now the first one holds the glaze.
            CompletableFuture<Void> waiting = CompletableFuture.runAsync(() -> commit(other));
            one.commit();
            assertThatThrownBy(waiting::join)
                .isInstanceOf(CompletionException.class)
                .hasMessageContaining(NAMED);
          }
        });
  }

  private static void commit(Connection connection) {
    try {
      connection.commit();
    } catch (SQLException refused) {
      throw new IllegalStateException(refused.getMessage(), refused);
    }
  }

  @Test
  void othersAreSaidNotToKeepIt() throws Exception {
    Draft demo = Pottery.demo();
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = Shipment.dialectOf(url);
      Databases.drop(url);
      Stream<Shortfall> told =
          Lowered.shortfalls(demo, new TableId("recipe_line"), dialect).stream();
      List<String> subjects =
          told.map(Shortfall::subject).filter(("that " + NAMED)::equals).toList();
      assertThat(subjects.isEmpty()).as(url).isEqualTo(url.startsWith("jdbc:postgresql:"));
    }
  }
}
