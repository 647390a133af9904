package joiner.engine;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** All engines Joiner knows. A new one is a class of its own and a line in this list. */
public final class Dialects {
  public static final Dialect POSTGRESQL = new PostgreSqlDialect();
  public static final Dialect SQLITE = new SqliteDialect();
  public static final Dialect H2 = new H2Dialect();
  public static final Dialect MARIADB = new MariaDbDialect();
  public static final Dialect DUCKDB = new DuckDbDialect();
  public static final Dialect SQL_SERVER = new SqlServerDialect();
  public static final Dialect ORACLE = new OracleDialect();

  public static final Dialect TRINO = new TrinoDialect();

  /** All that a design can be made real on, in the order they are shown. */
  public static final List<Dialect> ALL =
      List.of(POSTGRESQL, MARIADB, SQL_SERVER, ORACLE, SQLITE, DUCKDB, H2);

  /** Those that keep rows and nothing else: they are asked what rows hold. */
  public static final List<Dialect> ASKED_ONLY = List.of(TRINO);

  private Dialects() {}

  /** All that can be connected to. */
  public static Stream<Dialect> reached() {
    return Stream.concat(ALL.stream(), ASKED_ONLY.stream());
  }

  /** The one that a JDBC URL is for. */
  public static Optional<Dialect> ofUrl(String url) {
    return reached().filter(dialect -> url.startsWith(dialect.jdbcPrefix())).findFirst();
  }

  /** The one whose database a file is that begins so, each byte a character. */
  public static Optional<Dialect> ofFile(String head) {
    return ALL.stream().filter(dialect -> dialect.isFileOf(head)).findFirst();
  }

  /** The one with that command line word. */
  public static Optional<Dialect> named(String id) {
    return ALL.stream().filter(dialect -> dialect.id().equals(id)).findFirst();
  }
}
