package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A token of SQL as engines write it and take it; comments are none.
 *
 * @param text as it stands there, a quoted name with {@code "} whatever it was quoted with
 * @param start where it begins
 * @param end behind its last character
 */
record SqlToken(String text, int start, int end) {
  private static final List<String> GROUPS = List.of("quoted", "text", "number", "word");
  private static final Pattern PLAIN = pattern("[nNbBxXeE]?'(?:[^']|'')*+'");
  private static final Pattern ESCAPED = pattern("[nNbBxX]?'(?:[^'\\\\]|''|\\\\.)*+'");

  private static Pattern pattern(String text) {
    return Pattern.compile(
        "(?:\\s|--[^\\n]*|/\\*(?:[^*]|\\*(?!/))*+\\*/)*+"
            + "(?:(?<text>"
            + text
            + "|(?<mark>\\$\\w*\\$).*?\\k<mark>)"
            + "|(?<quoted>\"(?:[^\"]|\"\")*+\"|`(?:[^`]|``)*+`|(?<![\\w\\])])\\[[^\\]\\n']+\\])"
            + "|(?<number>0[xX][0-9a-fA-F]+|\\d+(?:\\.\\d*)?(?:[eE][+-]?\\d+)?|\\.\\d+)"
            + "|(?<word>[\\p{L}_][\\p{L}\\p{N}_$#]*)"
            + "|(?<sign>::|!~~|~~|<>|!=|<=|>=|\\|\\||:=|[^\\s]))",
        Pattern.DOTALL);
  }

  /** All tokens of a text. Linear in its length. */
  static List<SqlToken> of(String sql) {
    return of(sql, false);
  }

  /**
   * All tokens of a text. Linear in its length.
   *
   * @param escapes whether a backslash within a text escapes the next character, as in MariaDB
   */
  static List<SqlToken> of(String sql, boolean escapes) {
    var tokens = new ArrayList<SqlToken>();
    Matcher token = (escapes ? ESCAPED : PLAIN).matcher(sql);
    token.useTransparentBounds(true);
    while (token.lookingAt()) {
      String group = "sign";
      for (String name : GROUPS) {
        group = token.start(name) >= 0 ? name : group;
      }
      tokens.add(new SqlToken(plain(token.group(group)), token.start(group), token.end()));
      token.region(token.end(), token.regionEnd());
    }
    return tokens;
  }

  private static String plain(String text) {
    if (text.length() < 2) {
      return text;
    }
    return switch (text.charAt(0)) {
      case '`' -> quoted(text.substring(1, text.length() - 1).replace("``", "`"));
      case '[' -> quoted(text.substring(1, text.length() - 1));
      default -> text;
    };
  }

  /** A name in quotation marks. */
  static String quoted(String name) {
    return '"' + name.replace("\"", "\"\"") + '"';
  }

  /** Whether it is that word or sign, however it is written. */
  boolean is(String word) {
    return text.equalsIgnoreCase(word);
  }

  /** A name without its quotation marks. */
  String name() {
    return text.startsWith("\"")
        ? text.substring(1, text.length() - 1).replace("\"\"", "\"")
        : text;
  }

  /** Whether it is a word or a quoted name. */
  boolean isName() {
    return text.startsWith("\"") || Character.isLetter(text.charAt(0)) || text.startsWith("_");
  }

  /** Whether it is a text in quotes. */
  boolean isText() {
    return text.length() > 1 && text.endsWith("'") && text.indexOf('\'') <= 1;
  }

  /** Where a bracket that opens there closes; the last place if it never does. */
  static <T> int closing(List<T> tokens, Function<T, String> text, int open) {
    int depth = 0;
    for (int i = open; i < tokens.size(); i++) {
      depth += depthOf(text.apply(tokens.get(i)));
      if (depth == 0) {
        return i;
      }
    }
    return tokens.size() - 1;
  }

  /** What a token adds to the depth of brackets. */
  static int depthOf(String text) {
    return text.equals("(") ? 1 : text.equals(")") ? -1 : 0;
  }
}
