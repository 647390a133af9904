package joiner.database;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Properties;
import joiner.ddl.Catalog;
import joiner.ddl.Dialect;

/** One kind of database as JDBC reaches it. */
abstract class Engine {

  /** The engine a URL is for. */
  static Engine of(String url) throws TargetRefusedException {
    if (url.startsWith("jdbc:postgresql:")) {
      return new PostgreSqlEngine();
    }
    if (url.startsWith("jdbc:sqlite:")) {
      return new SqliteEngine();
    }
    if (url.startsWith("jdbc:h2:")) {
      return new H2Engine();
    }
    throw new TargetRefusedException(
        "“"
            + Target.shown(url)
            + "” is no target Joiner knows; a URL begins with jdbc:postgresql:, jdbc:sqlite: or jdbc:h2:.");
  }

  abstract Dialect dialect();

  /** Whether a failure leaves nothing behind without further doing. */
  abstract boolean undoesDefinitions();

  /** What the database holds in its current schema. */
  abstract Catalog read(Connection connection) throws SQLException;

  Properties properties(Target target) {
    var properties = new Properties();
    target.user().ifPresent(user -> properties.put("user", user));
    target.password().ifPresent(password -> properties.put("password", password));
    return properties;
  }

  /** Opens a connection with one transaction begun. */
  final Connection connect(Target target) throws TargetRefusedException {
    try {
      Connection connection = DriverManager.getConnection(target.url(), properties(target));
      connection.setAutoCommit(false);
      begin(connection);
      return connection;
    } catch (SQLException e) {
      var told = new SQLException(target.hide(String.valueOf(e.getMessage())), e.getSQLState());
      throw new TargetRefusedException(
          "The database " + target.shown() + " cannot be reached:", "", told);
    }
  }

  void begin(Connection connection) throws SQLException {}

  static void run(Connection connection, String sql) throws SQLException {
    try (Statement statement = connection.createStatement()) {
      statement.execute(sql);
    }
  }
}
