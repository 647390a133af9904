package joiner.format;

import java.nio.file.Path;
import java.util.List;

/** A design is not saved because somebody else changed its files meanwhile. */
public final class ChangedOutsideException extends Exception {
  private static final long serialVersionUID = 1L;
  private final transient List<String> files;

  /** Names the files, by their paths below the folder. */
  public ChangedOutsideException(Path folder, List<String> files) {
    super(
        "Somebody else changed "
            + String.join(", ", files)
            + " in "
            + folder
            + "; nothing was written over it.");
    this.files = List.copyOf(files);
  }

  /** Paths of the changed files below the folder. */
  public List<String> files() {
    return files;
  }
}
