package joiner.naming;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * What one engine allows as a name.
 *
 * @param engine the engine's own name
 * @param longest greatest length
 * @param measure what that counts
 * @param cuts whether the engine cuts off what is longer, without a word; others refuse it
 * @param strange matches a character that no name may hold, even quoted
 * @param folding what the engine does with names that are not quoted
 * @param reserved words, in lower case, that are refused as names of tables or columns unless
 *     quoted
 */
public record IdentifierRules(
    String engine,
    int longest,
    Measure measure,
    boolean cuts,
    Pattern strange,
    Folding folding,
    Set<String> reserved) {
  /** No character at all. */
  public static final Pattern NONE = Pattern.compile("(?!)");

  /** What a length counts. */
  public enum Measure {
    /** Bytes in UTF-8. */
    BYTES,
    /** UTF-16 code units, which engines call characters. */
    CHARACTERS
  }

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
    return length(name) > longest;
  }

  private int length(String name) {
    return switch (measure) {
      case BYTES -> name.getBytes(StandardCharsets.UTF_8).length;
      case CHARACTERS -> name.length();
    };
  }

  /** Whether the name holds characters that the engine has not. */
  public boolean hasStrangeCharacters(String name) {
    return strange.matcher(name).find();
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
    String kept = cuts && isTooLong(name) ? cut(name) : name;
    return folding == Folding.UPPER && !needsQuotes(kept) ? kept.toUpperCase(Locale.ROOT) : kept;
  }

  /** Whole characters, as many as there is room for. */
  private String cut(String name) {
    int end = 0;
    for (int next = 0; next < name.length() && length(name.substring(0, next)) <= longest; ) {
      end = next;
      next = name.offsetByCodePoints(next, 1);
    }
    return name.substring(0, end);
  }

  /**
   * The name by which one that the engine's catalog gives is written: what {@link #stored} undoes.
   */
  public String written(String stored) {
    String lower = stored.toLowerCase(Locale.ROOT);
    return stored(lower).equals(stored) ? lower : stored;
  }
}
