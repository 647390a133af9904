package joiner.shape;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.Optional;

/**
 * A regular expression that a whole text has to match. Matching takes time linear in the text
 * whatever the expression is (Russ Cox, "Regular Expression Matching Can Be Simple And Fast",
 * 2007), so that no pattern of a design can hold an audit up. What needs going back over the text,
 * look-around and back references, is refused.
 */
public final class TextPattern {
  /** No text of a design is longer; an expression within it is held in a few megabytes. */
  private static final int MOST_PLACES = 20_000;

  private final Pattern pattern;
  private final Optional<PatternTree> tree;

  private TextPattern(Pattern pattern) {
    this.pattern = pattern;
    this.tree = PatternReader.read(pattern.pattern());
  }

  /** What reading an expression gave. */
  public sealed interface Read {
    /** It can be used. */
    record Understood(TextPattern pattern) implements Read {}

    /**
     * It cannot be used.
     *
     * @param why a sentence with the remedy
     */
    record Refused(String why) implements Read {}
  }

  /** Reads an expression. */
  public static Read of(String expression) {
    if (expression.contains("&&")) {
      return new Read.Refused(
          "“&&” joins two sets of characters only in some programs; write out the set that is"
              + " meant, or \\x26\\x26 for the two signs.");
    }
    if (PatternSize.of(expression) > MOST_PLACES) {
      return new Read.Refused(
          "Written out with all its repetitions the pattern has more than "
              + MOST_PLACES
              + " places; repeat less, or say “+” for any number of times.");
    }
    try {
      return new Read.Understood(new TextPattern(Pattern.compile(expression)));
    } catch (PatternSyntaxException e) {
      String piece =
          e.getPattern() == null || e.getPattern().isEmpty() ? expression : e.getPattern();
      return new Read.Refused(
          "“"
              + piece
              + "” is not understood ("
              + e.getDescription()
              + "); a pattern has no look-around and no back references.");
    }
  }

  /** As it was written. */
  public String expression() {
    return pattern.pattern();
  }

  /** What it consists of; empty where a part of it means different things in different programs. */
  public Optional<PatternTree> tree() {
    return tree;
  }

  /** Whether the whole text has the pattern. */
  public boolean matches(String text) {
    return pattern.matches(text);
  }
}
