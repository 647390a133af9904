package joiner.engine;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Regular expressions of so plain a form that engines with less can say them too: characters, sets
 * of characters with ranges, digits, and how often each comes.
 */
final class SimplePattern {
  /** Beyond this, a pattern of single places is no longer one that people read. */
  private static final int MOST_PLACES = 100;

  private static final String SET = "\\[\\^?[A-Za-z0-9 _.,:;@#/-]+]";
  private static final String ATOM = "[A-Za-z0-9 _,:;@#/=!~<>&'\"-]|\\\\d|\\\\[.+*?()|/-]|" + SET;

  private static final Pattern SIMPLE =
      Pattern.compile("(?:" + ATOM + "|\\{\\d{1,2}(?:,\\d{0,2})?}|\\((?!\\?)|[)|*+?])*");

  /** One place of a text, and how often it comes. */
  private static final Pattern PLACE = Pattern.compile("(" + ATOM + ")(?:\\{(\\d{1,2})})?");

  private SimplePattern() {}

  /** Whether the pattern has nothing that POSIX extended regular expressions have not. */
  static boolean isSimple(String pattern) {
    return SIMPLE.matcher(pattern).matches();
  }

  /**
   * The pattern as one of LIKE with sets of characters, where each character has its place; empty
   * where it says more.
   */
  static Optional<String> asLike(String pattern) {
    var like = new StringBuilder();
    int places = 0;
    Matcher place = PLACE.matcher(pattern);
    int end = 0;
    while (end < pattern.length()) {
      if (!place.find(end) || place.start() != end) {
        return Optional.empty();
      }
      int times = place.group(2) == null ? 1 : Integer.parseInt(place.group(2));
      places += times;
      if (places > MOST_PLACES) {
        return Optional.empty();
      }
      like.append(inLike(place.group(1)).repeat(times));
      end = place.end();
    }
    return Optional.of(like.toString());
  }

  private static String inLike(String atom) {
    if (atom.equals("\\d")) {
      return "[0-9]";
    }
    String character = atom.length() == 2 ? atom.substring(1) : atom;
    return character.equals("_") ? "[_]" : character;
  }
}
