package joiner.source;

import java.nio.file.Path;

/**
 * Something in a file that is not as it should be. The rest of the file is read all the same.
 *
 * @param place the file, a sheet where there are several, and the line, from 1
 * @param message what was found, what became of it, and what to do, as sentences
 */
public record SourceProblem(String place, String message) {
  static SourceProblem inLine(Path file, long line, String message) {
    return new SourceProblem(file + (line > 0 ? ", line " + line : ""), message);
  }

  static SourceProblem inSheet(Path file, String sheet, long row, String message) {
    return new SourceProblem(
        file + ", sheet “" + sheet + "”" + (row > 0 ? ", row " + row : ""), message);
  }

  @Override
  public String toString() {
    return place + ": " + message;
  }
}
