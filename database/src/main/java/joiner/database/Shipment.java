package joiner.database;

import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import joiner.compare.Verification;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.Statement;
import joiner.engine.Dialect;
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
    return LiveTarget.dialectOf(url);
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
    Dialect dialect = LiveTarget.dialectOf(target.url());
    SchemaScript script = SchemaScript.of(draft, dialect, rows);
    try (LiveTarget live = LiveTarget.connect(target)) {
      run(live, script, progress);
      Verification verification = verify(live, script, draft, rows);
      return new Shipment(script.statements().size(), dialect.undoesDefinitions(), verification);
    } catch (SQLException e) {
      throw new TargetRefusedException("Reading the database back failed:", "", e);
    }
  }

  private static void run(LiveTarget live, SchemaScript script, Progress progress)
      throws TargetRefusedException, SQLException {
    int done = 0;
    List<String> created = new ArrayList<>();
    boolean finished = false;
    try {
      for (Statement statement : script.statements()) {
        if (!progress.reached(done, script.statements().size(), statement.section().title())) {
          throw new CancellationException("The shipment was stopped; nothing is left behind.");
        }
        run(live, statement);
        statement.creates().ifPresent(created::add);
        done++;
      }
      commit(live);
      finished = true;
    } finally {
      if (!finished) {
        takeBack(live, created);
      }
    }
  }

  private static void run(LiveTarget live, Statement statement) throws TargetRefusedException {
    try {
      live.run(statement.sql());
    } catch (SQLException e) {
      throw new TargetRefusedException(
          "The database refused “" + head(statement.sql()) + "”:", statement.sql(), e);
    }
  }

  private static void commit(LiveTarget live) throws TargetRefusedException {
    try {
      live.commit();
    } catch (SQLException e) {
      throw new TargetRefusedException("The database refused to keep what was sent:", "COMMIT", e);
    }
  }

  private static String head(String sql) {
    String line = sql.lines().findFirst().orElse("");
    return line.length() > 80 ? line.substring(0, 80) + "…" : line;
  }

  private static void takeBack(LiveTarget live, List<String> created) throws SQLException {
    live.rollback();
    if (!live.dialect().undoesDefinitions()) {
      for (String table : created.reversed()) {
        for (String sql : live.dialect().dropTable(table)) {
          live.run(sql);
        }
      }
      live.commit();
    }
  }

  private static Verification verify(
      LiveTarget live, SchemaScript script, Draft draft, RowsChoice rows) throws SQLException {
    Map<String, Integer> promised = new LinkedHashMap<>();
    Map<String, Integer> found = new LinkedHashMap<>();
    Verification verification =
        Verification.of(script.promise(), live.read(), live.dialect(), live);
    for (Table table : draft.design().tables()) {
      if (rows.includes(table)) {
        promised.put(table.name(), draft.rows().of(table.id()).count());
        found.put(table.name(), live.countRows(table.name()));
      }
    }
    return verification.withRows(promised, found);
  }
}
