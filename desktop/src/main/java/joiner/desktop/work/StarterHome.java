package joiner.desktop.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import joiner.format.DesignFolder;
import joiner.format.Places;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;

/** Tables to begin with: those that come with Joiner, and the designs in a folder of one's own. */
public final class StarterHome {
  private StarterHome() {}

  /** The folder in which one's own starters are kept, each a folder with a design. */
  public static Path own() {
    return Places.starters();
  }

  /**
   * All starters, Joiner's first.
   *
   * @throws IOException if one cannot be read; it is named
   */
  public static List<Draft> read() throws IOException {
    var all = new ArrayList<Draft>();
    for (Path folder : Stream.concat(in(shipped()), in(own())).toList()) {
      all.add(DesignFolder.open(folder).draft());
    }
    return all;
  }

  private static Path shipped() throws UnreadableFileException {
    return DemoHome.find().resolveSibling("starters");
  }

  private static Stream<Path> in(Path folder) throws IOException {
    if (!Files.isDirectory(folder)) {
      return Stream.empty();
    }
    try (Stream<Path> inside = Files.list(folder)) {
      return inside
          .filter(path -> Files.isRegularFile(path.resolve("datapackage.json")))
          .sorted()
          .toList()
          .stream();
    }
  }
}
