package joiner.naming;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Set;

/**
 * What one engine allows as a name.
 *
 * @param engine the engine's own name
 * @param longestBytes greatest length in UTF-8 bytes
 * @param folding what the engine does with names that are not quoted
 * @param reserved words, in lower case, that are refused as names of tables or columns unless
 *     quoted
 */
public record IdentifierRules(
    String engine, int longestBytes, Folding folding, Set<String> reserved) {
  /** What becomes of the letters of a name that is not quoted. */
  public enum Folding {
    LOWER,
    UPPER,
    KEPT
  }

  public IdentifierRules {
    reserved = Set.copyOf(reserved);
  }

  /** Whether the word must be quoted for being reserved. */
  public boolean isReserved(String name) {
    return reserved.contains(name.toLowerCase(Locale.ROOT));
  }

  /** Whether the engine would cut the name off or refuse it. */
  public boolean isTooLong(String name) {
    return name.getBytes(StandardCharsets.UTF_8).length > longestBytes;
  }

  /** Whether the name means itself only when it is quoted. */
  public boolean needsQuotes(String name) {
    String plain =
        switch (folding) {
          // An upper-casing engine gives a lower-case name back in capitals: one name, another
          // look.
          case LOWER, UPPER -> "[a-z_][a-z0-9_]*";
          case KEPT -> "[A-Za-z_][A-Za-z0-9_]*";
        };
    return !name.matches(plain) || isReserved(name);
  }

  /** The name as it stands in SQL text. */
  public String quote(String name) {
    return needsQuotes(name) ? "\"" + name.replace("\"", "\"\"") + "\"" : name;
  }

  /** The name as the engine's catalog gives it back. */
  public String stored(String name) {
    return folding == Folding.UPPER && !needsQuotes(name) ? name.toUpperCase(Locale.ROOT) : name;
  }

  /**
   * The name by which one that the engine's catalog gives is written: what {@link #stored} undoes.
   */
  public String written(String stored) {
    String lower = stored.toLowerCase(Locale.ROOT);
    return stored(lower).equals(stored) ? lower : stored;
  }
}
