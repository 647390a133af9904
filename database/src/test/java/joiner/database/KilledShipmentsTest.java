package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.BufferedReader;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import joiner.Pottery;
import joiner.Tries;
import joiner.catalog.Catalog;
import joiner.ddl.RowsChoice;
import joiner.engine.Dialect;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Shipments that are broken off: by a kill, by somebody else, by tables that are there. */
class KilledShipmentsTest {
  private static final int STATEMENTS = 80;

  @TempDir private Path folder;

  private static Shipment ship(String url) throws TargetRefusedException {
    return Shipment.ship(Pottery.demo(), Target.of(url), RowsChoice.ALL, Progress.NONE);
  }

  private static List<String> left(String url) throws Exception {
    Catalog left = LiveTarget.read(Target.of(url), "cannot be read", LiveTarget::read);
    return left.tables().stream().map(table -> table.name()).toList();
  }

  /**
   * A kill leaves nothing or everything where the engine takes definitions back; elsewhere it
   * leaves some of the tables, which the next shipment names before it sends anything.
   */
  @Test
  void aKillLeavesNothingOrIsNamed() throws Exception {
    for (long seed : Tries.of(1).toArray()) {
      for (String url : Databases.fresh(folder)) {
        Dialect dialect = Shipment.dialectOf(url);
        Process process = ShipLoop.start(url);
        boolean shipped = killedAfter(process, new Random(seed).nextInt(STATEMENTS));
        List<String> left = fileIsThere(url) ? left(url) : List.of();
        if (dialect.undoesDefinitions()) {
          assertThat(left.size()).as(url).isIn(shipped ? List.of(16) : List.of(0, 16));
        }
        if (left.isEmpty()) {
          assertThat(ship(url).verification().differences()).as(url).isEmpty();
        } else {
          assertThatThrownBy(() -> ship(url))
              .as(url)
              .isInstanceOf(TargetRefusedException.class)
              .hasMessageContaining("already has tables of the same names: ")
              .hasMessageContaining("Nothing was sent");
        }
        Databases.drop(url);
      }
    }
  }

  private static boolean fileIsThere(String url) {
    String file = url.replaceFirst("jdbc:[a-z0-9]+:", "");
    return !url.matches("jdbc:(sqlite|h2|duckdb):.*")
        || Path.of(file).toFile().exists()
        || Path.of(file + ".mv.db").toFile().exists();
  }

  /** Whether it was done before it could be killed. */
  private static boolean killedAfter(Process process, int lines) throws Exception {
    try (BufferedReader said = process.inputReader()) {
      String line = "";
      for (int i = 0; i < lines && line != null; i++) {
        line = said.readLine();
      }
      process.destroyForcibly().waitFor();
      return line == null || line.equals("shipped");
    }
  }

  /** Somebody takes an index away while the rows come in: it is seen, and nothing stays. */
  @Test
  void whatIsNotThereAfterAllIsTakenBack() throws Exception {
    for (String url : Databases.fresh(folder)) {
      if (Shipment.dialectOf(url).undoesDefinitions()) {
        continue; // Nobody else sees the tables before they are whole.
      }
      var count = new AtomicInteger();
      Shipment shipment =
          Shipment.ship(
              Pottery.demo(),
              Target.of(url),
              RowsChoice.NONE,
              (done, total, doing) -> {
                if (done == total - 1 && count.getAndIncrement() == 0) {
                  spoil(url);
                }
                return true;
              });
      assertThat(count.get()).as(url).isEqualTo(1);
      assertThat(shipment.verification().differences()).as(url).isNotEmpty();
      assertThat(left(url)).as(url).isEmpty();
      assertThat(ship(url).verification().differences()).as(url).isEmpty();
    }
  }

  private static void spoil(String url) {
    try (Connection connection = DriverManager.getConnection(url);
        Statement statement = connection.createStatement()) {
      statement.execute("ALTER TABLE kiln DROP CONSTRAINT ck_kiln_litres_minimum");
    } catch (java.sql.SQLException e) {
      throw new AssertionError(e);
    }
  }

  @Test
  void tablesOfTheSameNamesAreNamedBeforeAnythingIsSent() throws Exception {
    for (String url : Databases.fresh(folder)) {
      try (Connection connection = DriverManager.getConnection(url);
          Statement statement = connection.createStatement()) {
        statement.execute("CREATE TABLE kiln (x integer)");
      }
      assertThatThrownBy(() -> ship(url))
          .as(url)
          .hasMessageContaining("already has tables of the same names: kiln. Nothing was sent");
      assertThat(left(url)).as(url).hasSize(1);
    }
  }
}
