package joiner.database;

import java.io.IOException;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import joiner.catalog.CatalogTable;
import joiner.catalog.Sequence;
import joiner.catalog.View;
import joiner.compare.Verification;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.Statement;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.source.LinkedFile;

/**
 * Makes a design real: runs its script on a target in one transaction, reads the catalog back,
 * compares, and keeps what was made only if everything promised is there.
 *
 * @param statements how many statements ran
 * @param verification what was promised and what was there; where that differs, it was taken back
 */
public record Shipment(int statements, Verification verification) {

  /** The dialect a URL is for. */
  public static Dialect dialectOf(String url) throws TargetRefusedException {
    return LiveTarget.dialectOf(url);
  }

  /**
   * Ships a design with those of its rows; rows that stay in a file are read from it. What fails
   * leaves nothing behind: the transaction is taken back, or, where the engine commits each
   * definition at once, the tables made so far are dropped.
   *
   * @throws TargetRefusedException if the target cannot be reached, has tables of the same names,
   *     or refuses a statement
   * @throws CancellationException if the progress says to stop
   */
  public static Shipment ship(Draft draft, Target target, RowsChoice rows, Progress progress)
      throws TargetRefusedException {
    Dialect dialect = LiveTarget.dialectOf(target.url());
    if (Dialects.ASKED_ONLY.contains(dialect)) {
      throw new TargetRefusedException(
          dialect.engine()
              + " keeps no keys and no rules, so nothing is shipped to it; an audit asks it what its"
              + " rows hold.");
    }
    Draft whole = held(draft, rows);
    SchemaScript script = SchemaScript.toSend(whole, dialect, rows);
    try (LiveTarget live = LiveTarget.connect(target)) {
      refuseTheSame(live, script);
      Verification verification = run(live, script, whole, rows, progress);
      return new Shipment(script.statements().size(), verification);
    } catch (SQLException e) {
      throw new TargetRefusedException("Reading the database back failed:", "", e);
    }
  }

  private static Draft held(Draft draft, RowsChoice rows) throws TargetRefusedException {
    try {
      return LinkedFile.held(draft, rows::includes);
    } catch (IOException e) {
      throw new TargetRefusedException("Nothing was sent: " + e.getMessage());
    }
  }

  /** Nothing is sent where a table of the script is there already. */
  private static void refuseTheSame(LiveTarget live, SchemaScript script)
      throws SQLException, TargetRefusedException {
    Set<String> there = live.tableNames();
    List<String> same =
        script.promise().tables().stream()
            .map(CatalogTable::name)
            .filter(
                name -> there.contains(live.comparable(live.dialect().identifiers().stored(name))))
            .toList();
    if (!same.isEmpty()) {
      throw new TargetRefusedException(
          "The database already has tables of the same names: "
              + String.join(", ", same.subList(0, Math.min(same.size(), MOST_NAMED)))
              + (same.size() > MOST_NAMED ? " and " + (same.size() - MOST_NAMED) + " more" : "")
              + ". Nothing was sent; ship to another place, or drop them first"
              + (live.dialect().undoesDefinitions()
                  ? "."
                  : ", as when a shipment was broken off and left them."));
    }
  }

  private static final int MOST_NAMED = 8;

  private static Verification run(
      LiveTarget live, SchemaScript script, Draft draft, RowsChoice rows, Progress progress)
      throws TargetRefusedException, SQLException {
    int done = 0;
    List<String> created = new ArrayList<>();
    boolean kept = false;
    try {
      for (Statement statement : script.statements()) {
        int before = done;
        BooleanSupplier goesOn =
            () -> progress.reached(before, script.statements().size(), statement.section().title());
        if (!goesOn.getAsBoolean() || !run(live, statement, draft, goesOn)) {
          throw new CancellationException("The shipment was stopped; nothing is left behind.");
        }
        statement.creates().ifPresent(created::add);
        done++;
      }
      if (!live.canVerifyBefore()) {
        commit(live);
      }
      Verification verification = verify(live, script, draft, rows);
      if (verification.holds()) {
        commit(live);
        kept = true;
      }
      return verification;
    } finally {
      if (!kept) {
        takeBack(live, script, created);
      }
    }
  }

  /** Whether it ran to its end. */
  private static boolean run(
      LiveTarget live, Statement statement, Draft draft, BooleanSupplier goesOn)
      throws TargetRefusedException {
    try {
      if (statement.loads().isPresent()) {
        return live.load(statement, draft, goesOn);
      }
      live.run(statement.sql());
      return true;
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

  private static void takeBack(LiveTarget live, SchemaScript script, List<String> created)
      throws SQLException {
    live.rollback();
    if (live.dialect().undoesDefinitions() && live.canVerifyBefore()) {
      return;
    }
    for (View view : script.promise().around().views()) {
      if (created.contains(live.dialect().name(view.name()))) {
        live.run(live.dialect().alter().dropView(view));
      }
    }
    Set<String> there = live.tableNames();
    for (CatalogTable table : script.promise().tables().reversed()) {
      String name = live.dialect().name(table.name());
      String stored = live.dialect().identifiers().stored(table.name());
      if (created.contains(name) && there.contains(live.comparable(stored))) {
        for (String sql : live.dialect().dropTable(name)) {
          live.run(sql);
        }
      }
    }
    for (Sequence sequence : script.promise().sequences()) {
      String sort = sequence.isTable() ? "TABLE" : "SEQUENCE";
      live.run("DROP " + sort + " IF EXISTS " + live.dialect().name(sequence.name()));
    }
    live.commit();
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
