package joiner.audit;

/** Texts that are compared where they stand. */
final class Slices {
  private Slices() {}

  static boolean equal(char[] chars, int start, int length, String text) {
    if (length != text.length()) {
      return false;
    }
    for (int i = 0; i < length; i++) {
      if (chars[start + i] != text.charAt(i)) {
        return false;
      }
    }
    return true;
  }

  /** Code points of a text. */
  static int codePoints(char[] chars, int start, int length) {
    return Character.codePointCount(chars, start, length);
  }
}
