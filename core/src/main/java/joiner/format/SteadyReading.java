package joiner.format;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Optional;

/**
 * Reads a package while others may be saving it: what was read counts only if all of it stood there
 * together, else it is read again.
 *
 * @param opened the design
 * @param reader what read it
 */
record SteadyReading(DesignFolder.Opened opened, PackageReader reader) {
  private static final int ATTEMPTS = 100;

  /**
   * Reads a package.
   *
   * @param data another folder whose files hold the rows instead
   */
  static SteadyReading of(Path folder, SafeSave save, Optional<Path> data)
      throws IOException, UnreadableFileException {
    for (int attempt = 1; ; attempt++) {
      var reader = new PackageReader(folder, save, data);
      try {
        DesignFolder.Opened opened = reader.read();
        if (reader.isOneState()) {
          return new SteadyReading(opened, reader);
        }
      } catch (IOException | UncheckedIOException e) {
        if (attempt == ATTEMPTS || (!isGone(e) && reader.isOneState())) {
          throw e;
        }
      }
      if (attempt == ATTEMPTS) {
        throw new IOException(folder + " is being saved again and again; try once more later");
      }
      pause();
    }
  }

  /** Whether a file was moved to its place between the look for it and the reading. */
  private static boolean isGone(Exception e) {
    return e instanceof NoSuchFileException || e.getCause() instanceof NoSuchFileException;
  }

  private static void pause() throws IOException {
    try {
      Thread.sleep(10);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("reading was interrupted", e);
    }
  }
}
