package joiner.engine;

/**
 * Line breaks in texts, which the tools that run scripts of some engines take for the end of a line
 * of theirs: a line that holds but a separator would cut a text in two.
 */
final class LineBreaks {
  private LineBreaks() {}

  /** Whether a text has any. */
  static boolean isIn(String text) {
    return text.indexOf('\n') >= 0 || text.indexOf('\r') >= 0;
  }

  /**
   * A quoted text with its line breaks outside of the quotation marks.
   *
   * @param join the sign that joins two texts, with what stands before a quoted one
   * @param character the function that gives a character by its number
   */
  static String apart(String quoted, String join, String character) {
    if (!isIn(quoted)) {
      return quoted;
    }
    var apart = new StringBuilder();
    String sign = join.replaceAll("\\w+$", "");
    for (int i = 0; i < quoted.length(); i++) {
      char c = quoted.charAt(i);
      if (c == '\n' || c == '\r') {
        apart.append("'").append(sign).append(character).append('(').append((int) c).append(')');
        apart.append(join).append("'");
      } else {
        apart.append(c);
      }
    }
    return apart.toString();
  }
}
