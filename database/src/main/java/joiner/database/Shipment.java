package joiner.database;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import joiner.ddl.Dialect;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.Statement;
import joiner.meaning.Draft;
import joiner.model.Table;

/**
 * Makes a design real: runs its script on a target in one transaction, reads the catalog back and
 * compares.
 *
 * @param statements how many statements ran
 * @param transaction whether a failure would have left nothing behind
 * @param verification what was promised and what is there
 */
public record Shipment(int statements, boolean transaction, Verification verification) {

  /** The dialect a URL is for. */
  public static Dialect dialectOf(String url) throws TargetRefusedException {
    return Engine.of(url).dialect();
  }

  /**
   * Ships a design with those of its rows. What fails leaves nothing behind: the transaction is
   * taken back, or, where the engine commits each definition at once, the tables made so far are
   * dropped.
   *
   * @throws TargetRefusedException if the target cannot be reached or refuses a statement
   * @throws CancellationException if the progress says to stop
   */
  public static Shipment ship(Draft draft, Target target, RowsChoice rows, Progress progress)
      throws TargetRefusedException {
    Engine engine = Engine.of(target.url());
    SchemaScript script = SchemaScript.of(draft, engine.dialect(), rows);
    try (Connection connection = engine.connect(target)) {
      run(engine, connection, script, draft, progress);
      Verification verification = verify(engine, connection, script, draft, rows);
      return new Shipment(script.statements().size(), engine.undoesDefinitions(), verification);
    } catch (SQLException e) {
      throw new TargetRefusedException("Reading the database back failed:", "", e);
    }
  }

  private static void run(
      Engine engine, Connection connection, SchemaScript script, Draft draft, Progress progress)
      throws TargetRefusedException, SQLException {
    int done = 0;
    List<String> created = new ArrayList<>();
    boolean finished = false;
    try {
      for (Statement statement : script.statements()) {
        if (!progress.reached(done, script.statements().size(), statement.section().title())) {
          throw new CancellationException("The shipment was stopped; nothing is left behind.");
        }
        run(connection, statement);
        statement.creates().ifPresent(created::add);
        done++;
      }
      commit(connection);
      finished = true;
    } finally {
      if (!finished) {
        takeBack(engine, connection, created);
      }
    }
  }

  private static void run(Connection connection, Statement statement)
      throws TargetRefusedException {
    try {
      Engine.run(connection, statement.sql());
    } catch (SQLException e) {
      throw new TargetRefusedException(
          "The database refused “" + head(statement.sql()) + "”:", statement.sql(), e);
    }
  }

  private static void commit(Connection connection) throws TargetRefusedException {
    try {
      connection.commit();
    } catch (SQLException e) {
      throw new TargetRefusedException("The database refused to keep what was sent:", "COMMIT", e);
    }
  }

  private static String head(String sql) {
    String line = sql.lines().findFirst().orElse("");
    return line.length() > 80 ? line.substring(0, 80) + "…" : line;
  }

  private static void takeBack(Engine engine, Connection connection, List<String> created)
      throws SQLException {
    connection.rollback();
    if (!engine.undoesDefinitions()) {
      for (String table : created.reversed()) {
        Engine.run(connection, "DROP TABLE " + table + " CASCADE");
      }
      connection.commit();
    }
  }

  private static Verification verify(
      Engine engine, Connection connection, SchemaScript script, Draft draft, RowsChoice rows)
      throws SQLException {
    Map<String, Integer> promised = new LinkedHashMap<>();
    Map<String, Integer> found = new LinkedHashMap<>();
    Verification verification = Verification.of(script.promise(), engine.read(connection));
    for (Table table : draft.design().tables()) {
      if (rows.includes(table)) {
        promised.put(table.name(), draft.rows().of(table.id()).count());
        found.put(
            table.name(), count(connection, engine.dialect().identifiers().quote(table.name())));
      }
    }
    return verification.withRows(promised, found);
  }

  private static int count(Connection connection, String quotedTable) throws SQLException {
    try (var statement = connection.createStatement();
        ResultSet rows = statement.executeQuery("SELECT COUNT(*) FROM " + quotedTable)) {
      rows.next();
      return rows.getInt(1);
    }
  }
}
