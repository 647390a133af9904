package joiner.database;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;

/** Fresh databases of every engine; one PostgreSQL server serves the whole run. */
final class Databases {
  private static final AtomicInteger COUNT = new AtomicInteger();

  private Databases() {}

  private static final class Server {
    static final EmbeddedPostgres POSTGRES = start();

    private static EmbeddedPostgres start() {
      try {
        EmbeddedPostgres started =
            EmbeddedPostgres.builder().setPGStartupWait(java.time.Duration.ofSeconds(90)).start();
        Runtime.getRuntime().addShutdownHook(new Thread(() -> close(started)));
        return started;
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }

    private static void close(EmbeddedPostgres started) {
      try {
        started.close();
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }

  /** URLs of three empty databases: PostgreSQL, SQLite, H2. */
  static List<String> fresh(Path folder) {
    String name = "d" + COUNT.incrementAndGet();
    return List.of(
        postgres(name),
        "jdbc:sqlite:" + folder.resolve(name + ".sqlite"),
        "jdbc:h2:" + folder.resolve(name));
  }

  private static String postgres(String name) {
    try (Connection admin = Server.POSTGRES.getPostgresDatabase().getConnection();
        var statement = admin.createStatement()) {
      statement.execute("CREATE DATABASE " + name);
      return Server.POSTGRES.getJdbcUrl("postgres", name);
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
  }

  /** Takes a PostgreSQL database away, so that hundreds of them do not pile up. */
  static void drop(String url) throws SQLException {
    if (url.startsWith("jdbc:postgresql:")) {
      String name = url.substring(url.lastIndexOf('/') + 1).replaceAll("\\?.*", "");
      try (Connection admin = Server.POSTGRES.getPostgresDatabase().getConnection();
          var statement = admin.createStatement()) {
        statement.execute("DROP DATABASE " + name + " WITH (FORCE)");
      }
    }
  }

  /** Runs a query and gives its first column. */
  static List<String> column(String url, String sql) throws SQLException {
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement();
        var rows = statement.executeQuery(sql)) {
      var column = new java.util.ArrayList<String>();
      while (rows.next()) {
        column.add(rows.getString(1));
      }
      return column;
    }
  }
}
