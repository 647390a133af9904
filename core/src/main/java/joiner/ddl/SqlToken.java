package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
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
  private static final Pattern TOKEN =
      Pattern.compile(
          "(?:\\s|--[^\\n]*|/\\*(?:[^*]|\\*(?!/))*+\\*/)*+"
              + "(?:(?<text>[nNbBxXeE]?'(?:[^']|'')*+')"
              + "|(?<quoted>\"(?:[^\"]|\"\")*+\"|`(?:[^`]|``)*+`)"
              + "|(?<number>\\d+(?:\\.\\d*)?(?:[eE][+-]?\\d+)?|\\.\\d+)"
              + "|(?<word>[\\p{L}_][\\p{L}\\p{N}_$#]*)"
              + "|(?<sign>::|!~~|~~|<>|!=|<=|>=|\\|\\||:=|[^\\s]))",
          Pattern.DOTALL);

  /** All tokens of a text. Linear in its length. */
  static List<SqlToken> of(String sql) {
    var tokens = new ArrayList<SqlToken>();
    Matcher token = TOKEN.matcher(sql);
    while (token.lookingAt()) {
      String group =
          token.group("quoted") != null
              ? "quoted"
              : token.group("text") != null
                  ? "text"
                  : token.group("number") != null
                      ? "number"
                      : token.group("word") != null ? "word" : "sign";
      String text = token.group(group);
      if (text.startsWith("`")) {
        text = quoted(text.substring(1, text.length() - 1).replace("``", "`"));
      }
      tokens.add(new SqlToken(text, token.start(group), token.end()));
      token.region(token.end(), token.regionEnd());
    }
    return tokens;
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
}
