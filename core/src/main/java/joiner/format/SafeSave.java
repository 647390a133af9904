package joiner.format;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Saves several files so that a kill at any moment leaves all old or all new ones. New contents are
 * written aside and forced to disk; then one rename (write aside, fsync, rename) declares them
 * valid; then each is moved to its place and what is to go is deleted. A reader that finds the
 * declaration takes the new contents from aside, and the next save finishes the moves first.
 */
final class SafeSave {
  private static final String ASIDE = ".joiner-save";
  private static final String DECLARED = ".joiner-saved";

  /** Lists, in the declared folder, the files that go. */
  private static final String GOING = ".going";

  private final Path folder;

  SafeSave(Path folder) {
    this.folder = folder;
  }

  /** Where the valid content of a file stands now; the path stays inside the folder. */
  Path current(String path) {
    return RowPaths.inside(folder.resolve(DECLARED), path)
        .filter(Files::isRegularFile)
        .orElseGet(() -> place(path));
  }

  private Path place(String path) {
    return RowPaths.inside(folder, path)
        .orElseThrow(
            () -> new IllegalArgumentException("the path “" + path + "” leaves " + folder));
  }

  /** The content of a file as it is valid now, if it is there. */
  Optional<byte[]> content(String path) throws IOException {
    Path file = current(path);
    return Files.isRegularFile(file) ? Optional.of(Files.readAllBytes(file)) : Optional.empty();
  }

  /**
   * Saves those files; one whose content is the same already is not touched.
   *
   * @param going files to delete; those that are not there are passed over
   */
  void save(Map<String, byte[]> files, Collection<String> going) throws IOException {
    finish();
    Map<String, byte[]> changed = changed(files);
    List<String> gone = going.stream().filter(path -> Files.isRegularFile(place(path))).toList();
    if (changed.isEmpty() && gone.isEmpty()) {
      return;
    }
    Path aside = folder.resolve(ASIDE);
    delete(aside);
    for (Map.Entry<String, byte[]> file : changed.entrySet()) {
      write(
          RowPaths.inside(aside, file.getKey()).orElseGet(() -> place(file.getKey())),
          file.getValue());
    }
    write(aside.resolve(GOING), String.join("\n", gone).getBytes(StandardCharsets.UTF_8));
    force(aside);
    Files.move(aside, folder.resolve(DECLARED), StandardCopyOption.ATOMIC_MOVE);
    force(folder);
    finish();
  }

  private Map<String, byte[]> changed(Map<String, byte[]> files) throws IOException {
    Map<String, byte[]> changed = new LinkedHashMap<>();
    for (Map.Entry<String, byte[]> file : files.entrySet()) {
      Path target = place(file.getKey());
      if (!Files.isRegularFile(target)
          || !Arrays.equals(Files.readAllBytes(target), file.getValue())) {
        changed.put(file.getKey(), file.getValue());
      }
    }
    return changed;
  }

  /** Moves declared files to their places; does nothing where none are declared. */
  void finish() throws IOException {
    Path declared = folder.resolve(DECLARED);
    if (!Files.isDirectory(declared)) {
      return;
    }
    List<Path> files;
    try (Stream<Path> walk = Files.walk(declared)) {
      files = walk.filter(Files::isRegularFile).sorted().toList();
    }
    Path going = declared.resolve(GOING);
    for (Path file : files) {
      if (!file.equals(going)) {
        Path target = place(declared.relativize(file).toString());
        Files.createDirectories(target.getParent());
        Files.move(
            file, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
      }
    }
    if (Files.isRegularFile(going)) {
      for (String path : Files.readString(going).lines().toList()) {
        Files.deleteIfExists(place(path));
      }
    }
    force(folder);
    delete(declared);
  }

  private static void write(Path file, byte[] content) throws IOException {
    Files.createDirectories(file.getParent());
    try (FileChannel channel =
        FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
      var bytes = ByteBuffer.wrap(content);
      while (bytes.hasRemaining()) {
        channel.write(bytes);
      }
      channel.force(true);
    }
  }

  /** Forces a folder's entries to disk, where the system can. */
  private static void force(Path folder) throws IOException {
    if (!System.getProperty("os.name").startsWith("Windows")) {
      try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
        channel.force(true);
      }
    }
  }

  private static void delete(Path folder) throws IOException {
    if (!Files.exists(folder)) {
      return;
    }
    try (Stream<Path> walk = Files.walk(folder)) {
      for (Path path : walk.sorted(Comparator.reverseOrder()).toList()) {
        Files.delete(path);
      }
    }
  }
}
