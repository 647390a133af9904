package joiner.discovery;

import joiner.rows.ValueForm;

/**
 * The digits of a text in groups between separators. Of two different separators the last is the
 * decimal one; one that comes once may be either, if three digits follow it; one that comes more
 * often groups thousands.
 */
final class NumberShape {
  private static final int POINT = ValueForm.NUMBER_POINT.bit();
  private static final int COMMA = ValueForm.NUMBER_COMMA.bit();

  private final String text;
  private final int begin;
  private int points;
  private int commas;
  private int blanks;

  /** Whether the groups between separators have three digits, and the first one to three. */
  private boolean thousands = true;

  private char last;
  private int groupStart;

  private NumberShape(String text) {
    this.text = text;
    this.begin = text.charAt(0) == '-' || text.charAt(0) == '+' ? 1 : 0;
    this.groupStart = begin;
  }

  /** Bits of the forms of numbers a text fits, with the marks of {@link FormReader}. */
  static int forms(String text) {
    return new NumberShape(text).forms();
  }

  private int forms() {
    for (int at = begin; at < text.length(); at++) {
      char c = text.charAt(at);
      if (!FormReader.isDigit(c)) {
        if (!isSeparator(c)) {
          return exponent(at);
        }
        separate(c, at);
      }
    }
    int separators = points + commas + blanks;
    if (text.length() - begin == separators) {
      return 0;
    }
    int forms = separators == 0 ? ValueForm.WHOLE.bit() | POINT | COMMA : separated();
    return forms == 0 || !leadingZero() ? forms : forms | FormReader.LEADING_ZEROS;
  }

  private static boolean isSeparator(char c) {
    return c == '.' || c == ',' || c == ' ' || c == '\u00a0' || c == '\u202f' || c == '\'';
  }

  private void separate(char c, int at) {
    int size = at - groupStart;
    boolean first = points + commas + blanks == 0;
    thousands &= first ? size >= 1 && size <= 3 : size == 3;
    switch (c) {
      case '.' -> points++;
      case ',' -> commas++;
      default -> blanks++;
    }
    last = c;
    groupStart = at + 1;
  }

  private boolean leadingZero() {
    return text.charAt(begin) == '0'
        && begin + 1 < text.length()
        && FormReader.isDigit(text.charAt(begin + 1));
  }

  /** Digits behind the last separator. */
  private int tail() {
    return text.length() - groupStart;
  }

  private int separated() {
    if (points + commas == 1 && blanks == 0) {
      return single();
    }
    boolean decimal = last == '.' ? points == 1 : last == ',' && commas == 1;
    if (!thousands) {
      return 0;
    }
    if (decimal) {
      return unmixed() ? FormReader.GROUPED | (last == '.' ? POINT : COMMA) : 0;
    }
    return tail() == 3 ? grouped() : 0;
  }

  /** Whether the separators before the last are all of one kind. */
  private boolean unmixed() {
    int kinds = blanks > 0 ? 1 : 0;
    kinds += points > (last == '.' ? 1 : 0) ? 1 : 0;
    kinds += commas > (last == ',' ? 1 : 0) ? 1 : 0;
    return kinds == 1;
  }

  /** All separators group thousands. */
  private int grouped() {
    if (points + commas == 0) {
      return FormReader.GROUPED | POINT | COMMA;
    }
    if (blanks > 0 || points > 0 && commas > 0) {
      return 0;
    }
    return FormReader.GROUPED | (commas > 0 ? POINT : COMMA);
  }

  /** One point or comma: decimal, or perhaps a group of thousands before three digits. */
  private int single() {
    boolean perhapsGroup = thousands && tail() == 3;
    if (last == '.') {
      return perhapsGroup ? POINT | COMMA : POINT;
    }
    return tail() == 0 ? 0 : perhapsGroup ? POINT | COMMA : COMMA;
  }

  private int exponent(int at) {
    boolean shaped =
        (text.charAt(at) == 'e' || text.charAt(at) == 'E')
            && text.substring(begin, at).chars().anyMatch(c -> FormReader.isDigit((char) c))
            && points <= 1
            && commas + blanks == 0
            && text.substring(at + 1).matches("[+-]?\\d{1,3}");
    return shaped ? POINT : 0;
  }
}
