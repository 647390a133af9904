package joiner.map;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.format.Places;

/**
 * Layouts that were worked out before, so that a map is there without the layout kernel being
 * loaded: those that come with Joiner, and the last ones of this user. A file that cannot be read
 * counts for nothing; one that cannot be written is done without.
 */
final class KeptLayouts {
  /** How many stay. */
  private static final int MOST = 200;

  private KeptLayouts() {}

  /** The layout of a graph, kept or worked out now. */
  static Coordinates of(LayoutGraph graph) {
    String digest = graph.digest();
    Path file = folder().resolve(digest);
    return shipped(graph, digest)
        .or(() -> kept(graph, file))
        .orElseGet(
            () -> {
              Coordinates worked = LayoutKernel.layOut(graph);
              keep(worked, file);
              return worked;
            });
  }

  static Path folder() {
    return Places.cache().resolve("layouts");
  }

  static Optional<Coordinates> shipped(LayoutGraph graph, String digest) {
    try (InputStream in = KeptLayouts.class.getResourceAsStream("layouts/" + digest)) {
      return in == null ? Optional.empty() : Optional.of(read(in, graph));
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  private static Optional<Coordinates> kept(LayoutGraph graph, Path file) {
    if (!Files.isRegularFile(file)) {
      return Optional.empty();
    }
    try (InputStream in = Files.newInputStream(file)) {
      Coordinates read = read(in, graph);
      Files.setLastModifiedTime(file, FileTime.from(Instant.now())); // It is wanted still.
      return Optional.of(read);
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  private static Coordinates read(InputStream in, LayoutGraph graph) throws IOException {
    return Coordinates.read(new DataInputStream(new BufferedInputStream(in)), graph);
  }

  private static void keep(Coordinates worked, Path file) {
    try {
      Files.createDirectories(file.getParent());
      Path aside = Files.createTempFile(file.getParent(), "new", "");
      try (var out = new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(aside)))) {
        worked.write(out);
      }
      Files.move(aside, file, StandardCopyOption.REPLACE_EXISTING);
      forgetOldest(file.getParent());
    } catch (IOException e) {
      return; // It is worked out again next time.
    }
  }

  private static void forgetOldest(Path folder) throws IOException {
    List<Path> all;
    try (Stream<Path> files = Files.list(folder)) {
      all = files.sorted(Comparator.comparing(file -> file.toFile().lastModified())).toList();
    }
    for (Path old : all.subList(0, Math.max(0, all.size() - MOST))) {
      Files.deleteIfExists(old);
    }
  }
}
