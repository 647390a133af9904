package joiner.desktop.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import joiner.format.UnreadableFileException;

/** The demo that comes with Joiner. */
public final class DemoHome {
  private DemoHome() {}

  /** Folder of the demo design, its broken copy and its source files. */
  public static Path find() throws UnreadableFileException {
    Path home = Path.of(System.getProperty("joiner.home", ".")).toAbsolutePath().normalize();
    for (Path at = home; at != null; at = at.getParent()) {
      if (Files.isRegularFile(at.resolve("demo/saltmarsh-pottery/datapackage.json"))) {
        return at.resolve("demo");
      }
    }
    throw new UnreadableFileException(
        home, 0, "the demo design is not here; start Joiner through its launcher.");
  }

  /** Copies the demo design into a folder, which is made if it is not there. */
  public static void copyTo(Path folder) throws IOException, UnreadableFileException {
    Path from = find().resolve("saltmarsh-pottery");
    try (Stream<Path> files = Files.walk(from)) {
      for (Path file : files.toList()) {
        Path to = folder.resolve(from.relativize(file).toString());
        if (Files.isDirectory(file)) {
          Files.createDirectories(to);
        } else {
          Files.copy(file, to);
        }
      }
    }
  }
}
