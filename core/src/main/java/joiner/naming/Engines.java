package joiner.naming;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The identifier rules of the engines Joiner writes for. The lists of reserved words were made by
 * giving every SQL key word to the engine itself as the name of a table and a column: PostgreSQL
 * 17.11, SQLite 3.50.3, H2 2.4.240.
 */
public final class Engines {
  /** PostgreSQL: names are cut off after 63 bytes. */
  public static final IdentifierRules POSTGRESQL =
      new IdentifierRules("PostgreSQL", 63, IdentifierRules.Folding.LOWER, reserved("postgresql"));

  /** SQLite: names of any length. */
  public static final IdentifierRules SQLITE =
      new IdentifierRules(
          "SQLite", Integer.MAX_VALUE, IdentifierRules.Folding.KEPT, reserved("sqlite"));

  /** H2: names of at most 256 characters. */
  public static final IdentifierRules H2 =
      new IdentifierRules("H2", 256, IdentifierRules.Folding.UPPER, reserved("h2"));

  /** All of them, in the order they are shown. */
  public static final List<IdentifierRules> ALL = List.of(POSTGRESQL, SQLITE, H2);

  private Engines() {}

  private static Set<String> reserved(String engine) {
    String file = "reserved-" + engine + ".txt";
    try (InputStream in = Engines.class.getResourceAsStream(file)) {
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
