package joiner.engine;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The words an engine refuses as names unless they are quoted, in lower case. The lists were made
 * by giving every SQL key word to the engine itself as the name of a table and a column: PostgreSQL
 * 17.11, SQLite 3.50.3, H2 2.4.240, DuckDB 2.0.0; those of SQL Server and Oracle are from memory of
 * their documentation.
 */
final class ReservedWords {
  private ReservedWords() {}

  /** The words of the engine with that id. */
  static Set<String> of(String engine) {
    String file = "reserved-" + engine + ".txt";
    try (InputStream in = ReservedWords.class.getResourceAsStream(file)) {
      if (in == null) {
        throw new IllegalStateException(file + " is missing from the application");
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8)
          .lines()
          .collect(Collectors.toUnmodifiableSet());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
