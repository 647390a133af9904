package joiner.source;

import java.util.regex.Pattern;

/** What a library says of a file it cannot read, as a person can use it. */
final class Said {
  /** Names of classes in front of a message. */
  private static final Pattern CLASSES =
      Pattern.compile("^(?:(?:[\\w$]+\\.)*[\\w$]*(?:Exception|Error)\\b[:\\s]*)+");

  private Said() {}

  /** Its first line, without names of classes. */
  static String by(Exception e) {
    String first = String.valueOf(e.getMessage()).strip().lines().findFirst().orElse("").strip();
    String plain = CLASSES.matcher(first).replaceFirst("").strip();
    return plain.isEmpty() || plain.equals("null") ? "a part of it makes no sense" : plain;
  }
}
