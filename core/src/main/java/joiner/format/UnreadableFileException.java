package joiner.format;

import java.io.IOException;
import java.nio.file.Path;

/** A file that cannot be read as what it should be. It is left untouched. */
public final class UnreadableFileException extends IOException {
  private static final long serialVersionUID = 1L;
  private final String file;
  private final int line;

  /**
   * Says what is wrong and what to do.
   *
   * @param line from 1; 0 where the whole file is meant
   * @param message what was found and what to do, as sentences
   */
  public UnreadableFileException(Path file, int line, String message) {
    super(file + (line > 0 ? ", line " + line : "") + ": " + message);
    this.file = file.toString();
    this.line = line;
  }

  /** The file. */
  public String file() {
    return file;
  }

  /** The line, from 1; 0 where the whole file is meant. */
  public int line() {
    return line;
  }
}
