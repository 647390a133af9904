package joiner.database;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.SQLFeatureNotSupportedException;
import java.sql.Savepoint;
import java.sql.Statement;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import joiner.catalog.Catalog;
import joiner.catalog.SqlExpression;
import joiner.engine.Answers;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.format.Places;
import joiner.meaning.Draft;
import joiner.naming.IdentifierRules;

/** A database that is connected to, with one transaction begun. */
final class LiveTarget implements AutoCloseable, Answers {
  private static final int ROWS_AT_ONCE = 1_000;

  private final Connection connection;
  private final Dialect dialect;

  private LiveTarget(Connection connection, Dialect dialect) {
    this.connection = connection;
    this.dialect = dialect;
  }

  /** The engine a URL is for. */
  static Dialect dialectOf(String url) throws TargetRefusedException {
    return Dialects.ofUrl(url)
        .orElseThrow(
            () ->
                new TargetRefusedException(
                    "“"
                        + Target.shown(url)
                        + "” is no target Joiner knows; a URL begins with "
                        + Dialects.reached()
                            .map(Dialect::jdbcPrefix)
                            .collect(Collectors.joining(", "))
                        + "."));
  }

  static LiveTarget connect(Target target) throws TargetRefusedException {
    return connect(target, false);
  }

  /** Connects to a database that must be there, and changes nothing in it. */
  private static LiveTarget connectToRead(Target target) throws TargetRefusedException {
    return connect(target, true);
  }

  private static LiveTarget connect(Target target, boolean toRead) throws TargetRefusedException {
    Dialect dialect = dialectOf(target.url());
    var properties = new Properties();
    properties.putAll(toRead ? dialect.readingProperties() : dialect.connectionProperties());
    target.user().ifPresent(user -> properties.put("user", user));
    target.password().ifPresent(password -> properties.put("password", password));
    try {
      Connection connection =
          new Drivers(Places.drivers()).connect(target.url(), properties, dialect);
      connection.setAutoCommit(false);
      var live = new LiveTarget(connection, dialect);
      for (String sql : toRead ? List.<String>of() : dialect.transactionStart()) {
        live.run(sql);
      }
      return live;
    } catch (SQLException e) {
      throw new TargetRefusedException(
          "The database "
              + target.shown()
              + " cannot be reached: "
              + Unreachable.reason(e, dialect)
              + " The driver says:",
          "",
          target.hide(e));
    }
  }

  /** Something that is read from a database. */
  interface Reading<T> {
    T from(LiveTarget live) throws SQLException;
  }

  /** Reads from a database that must be there; {@code cannot} says what failed where it does. */
  static <T> T read(Target target, String cannot, Reading<T> reading)
      throws TargetRefusedException {
    try (LiveTarget live = connectToRead(target)) {
      return reading.from(live);
    } catch (SQLException e) {
      throw new TargetRefusedException(
          "The database " + target.shown() + " " + cannot + ":", "", target.hide(e));
    }
  }

  Dialect dialect() {
    return dialect;
  }

  /** Name and version of what answers. */
  String product() throws SQLException {
    var metadata = connection.getMetaData();
    return metadata.getDatabaseProductName() + " " + metadata.getDatabaseProductVersion();
  }

  void run(String sql) throws SQLException {
    try (Statement statement = connection.createStatement()) {
      statement.execute(sql);
    }
  }

  /** Loads the rows of a statement; whether all went in. */
  boolean load(joiner.ddl.Statement statement, Draft draft, BooleanSupplier goesOn)
      throws SQLException {
    return new RowLoading(connection, dialect, draft, goesOn)
        .load(statement, statement.loads().orElseThrow());
  }

  /** A query whose rows come piece by piece. */
  PreparedStatement reading(String sql) throws SQLException {
    PreparedStatement statement = connection.prepareStatement(sql);
    statement.setFetchSize(ROWS_AT_ONCE);
    return statement;
  }

  void commit() throws SQLException {
    connection.commit();
  }

  void rollback() throws SQLException {
    connection.rollback();
  }

  /** Whether a comparison that fails within a transaction takes back only itself. */
  boolean canVerifyBefore() throws SQLException {
    return connection.getMetaData().supportsSavepoints();
  }

  /** Names of the tables of the current schema, {@link #comparable} each. */
  Set<String> tableNames() throws SQLException {
    return new CatalogReader(connection, dialect)
        .tableNames().stream().map(this::comparable).collect(Collectors.toSet());
  }

  /** A stored name in a form that is the same for two names the engine takes for one. */
  String comparable(String stored) {
    return dialect.identifiers().folding() == IdentifierRules.Folding.KEPT
        ? stored.toLowerCase(Locale.ROOT)
        : stored;
  }

  /** What the database holds in its current schema. */
  Catalog read() throws SQLException {
    return new CatalogReader(connection, dialect).read();
  }

  int countRows(String table) throws SQLException {
    try (var statement = connection.createStatement();
        ResultSet rows = statement.executeQuery("SELECT COUNT(*) FROM " + dialect.name(table))) {
      rows.next();
      return rows.getInt(1);
    }
  }

  /**
   * Whether two expressions without columns have one value, as the engine itself computes them; it
   * gives defaults back in other words than it was given them.
   */
  @Override
  public boolean haveOneValue(SqlExpression one, SqlExpression other) {
    String shown = dialect.shown(one.sql());
    if (shown.strip().equals(other.sql().strip())) {
      return true;
    }
    String a = "(" + shown + ")";
    String b = "(" + other.sql() + ")";
    String sql =
        "SELECT CASE WHEN "
            + a
            + " = "
            + b
            + " OR "
            + a
            + " IS NULL AND "
            + b
            + " IS NULL"
            + " THEN 1 ELSE 0 END"
            + dialect.fromNothing();
    return asked(sql).filter("1"::equals).isPresent();
  }

  @Override
  public String worded(SqlExpression condition) {
    return dialect.wording(condition.sql()).flatMap(this::asked).orElse(condition.sql());
  }

  /**
   * What a query of one value gives; empty where the engine cannot answer it, which then counts as
   * a difference and is told with both texts.
   */
  private Optional<String> asked(String query) {
    try {
      Optional<Savepoint> before =
          canVerifyBefore() ? Optional.of(connection.setSavepoint()) : Optional.empty();
      try (var statement = connection.createStatement();
          ResultSet rows = statement.executeQuery(query)) {
        Optional<String> answer =
            rows.next() ? Optional.ofNullable(rows.getString(1)) : Optional.empty();
        release(before);
        return answer;
      } catch (SQLException cannotAnswer) {
        goOn(before);
        return Optional.empty();
      }
    } catch (SQLException broken) {
      throw new IllegalStateException("The connection broke while things were compared.", broken);
    }
  }

  private void release(Optional<Savepoint> before) throws SQLException {
    if (before.isPresent()) {
      try {
        connection.releaseSavepoint(before.get());
      } catch (SQLFeatureNotSupportedException it) {
        return; // It goes with the transaction.
      }
    }
  }

  /** Some engines take nothing more after an error until what came before it is taken up again. */
  private void goOn(Optional<Savepoint> before) throws SQLException {
    if (before.isPresent()) {
      connection.rollback(before.get());
    } else {
      connection.rollback();
    }
  }

  @Override
  public void close() throws SQLException {
    connection.close();
  }
}
