package joiner.engine;

import java.util.List;
import java.util.Optional;

/** All engines Joiner knows. A new one is a class of its own and a line in this list. */
public final class Dialects {
  public static final Dialect POSTGRESQL = new PostgreSqlDialect();
  public static final Dialect SQLITE = new SqliteDialect();
  public static final Dialect H2 = new H2Dialect();
  public static final Dialect MARIADB = new MariaDbDialect();
  public static final Dialect DUCKDB = new DuckDbDialect();
  public static final Dialect SQL_SERVER = new SqlServerDialect();
  public static final Dialect ORACLE = new OracleDialect();

  /** All of them, in the order they are shown. */
  public static final List<Dialect> ALL =
      List.of(POSTGRESQL, MARIADB, SQL_SERVER, ORACLE, SQLITE, DUCKDB, H2);

  private Dialects() {}

  /** The one that a JDBC URL is for. */
  public static Optional<Dialect> ofUrl(String url) {
    return ALL.stream().filter(dialect -> url.startsWith(dialect.jdbcPrefix())).findFirst();
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
