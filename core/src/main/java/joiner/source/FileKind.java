package joiner.source;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;
import joiner.ddl.SqlScript;

/** Tells files that hold no tables Joiner could read, by their ending and their beginning. */
final class FileKind {
  /** What files begin with, by the documentation of their formats (from memory). */
  private static final Map<String, String> BEGINNINGS =
      Map.of(
          "%PDF", "a PDF document",
          "SQLite format 3", "a SQLite database",
          "\u00ffWPC", "a word processor's document",
          "\u0089PNG", "a picture",
          "\u00ff\u00d8\u00ff", "a picture",
          "GIF8", "a picture",
          "\u001f\u008b", "a compressed file",
          "7z\u00bc\u00af", "a compressed file",
          "Rar!", "a compressed file",
          "PAR1", "a Parquet file");

  private FileKind() {}

  /**
   * What a file is and what to do, as a sentence, where it is nothing to read tables from.
   *
   * @param name in lower case
   * @param head the file's first bytes
   */
  static Optional<String> otherThanTables(String name, byte[] head) {
    String text = new String(head, StandardCharsets.ISO_8859_1);
    for (Map.Entry<String, String> kind : BEGINNINGS.entrySet()) {
      if (text.startsWith(kind.getKey())) {
        return Optional.of(
            "this is " + kind.getValue() + "; save its tables as CSV, xlsx or ods first.");
      }
    }
    if (SqlScript.isNamed(name)) {
      return Optional.of(
          "this is an SQL script; bring its tables into a design in Gather or with joiner import.");
    }
    return isBinary(head)
        ? Optional.of("this is no text; save its tables as CSV, xlsx or ods first.")
        : Optional.empty();
  }

  /** Text of one byte a character has no NUL; of two, nearly every second byte may be one. */
  private static boolean isBinary(byte[] head) {
    int nul = 0;
    int control = 0;
    for (byte b : head) {
      nul += b == 0 ? 1 : 0;
      control += b >= 0 && b < ' ' && b != '\t' && b != '\n' && b != '\r' && b != 0 ? 1 : 0;
    }
    boolean wide = nul > head.length / 5;
    return control > head.length / 10 && !wide;
  }
}
