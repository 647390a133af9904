package joiner.format;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Optional;

/**
 * Marks a folder as worked on by a file that says by whom. The mark is a lock of the operating
 * system, so that it ends with the process, however that ends.
 */
final class FolderLock {
  static final String FILE = ".joiner-lock";

  private final Path file;
  private Optional<MarkedFile> held = Optional.empty();

  FolderLock(Path folder) {
    this.file = folder.resolve(FILE);
  }

  /** Takes the mark, or says who has it. */
  Optional<String> take() throws IOException {
    if (held.isPresent() || !Files.isDirectory(file.getParent())) {
      return Optional.empty();
    }
    return switch (MarkedFile.attempt(file, ourselves())) {
      case MarkedFile.Attempt.Held taken -> {
        held = Optional.of(taken.file());
        yield Optional.empty();
      }
      case MarkedFile.Attempt.OfAnotherProcess other -> Optional.of(holder());
      case MarkedFile.Attempt.OfThisProcess own -> Optional.of("another window of this Joiner");
    };
  }

  private static String ourselves() {
    String since = DateTimeFormatter.ofPattern("HH:mm").format(LocalDateTime.now());
    return System.getProperty("user.name", "somebody")
        + " since "
        + since
        + ", process "
        + ProcessHandle.current().pid();
  }

  private String holder() {
    try {
      String text = Files.readString(file).strip();
      return text.isEmpty() ? "another Joiner" : text;
    } catch (IOException e) {
      return "another Joiner"; // Some systems do not let a locked file be read.
    }
  }

  void release() throws IOException {
    if (held.isPresent()) {
      MarkedFile taken = held.get();
      held = Optional.empty();
      taken.close();
    }
  }
}
