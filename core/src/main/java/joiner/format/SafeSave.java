package joiner.format;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * Saves several files so that a kill at any moment leaves all old or all new ones. New texts are
 * written aside and forced to disk; then one rename (write aside, fsync, rename) declares them
 * valid; then each is moved to its place. A reader that finds the declaration takes the new texts
 * from aside, and the next save finishes the moves first.
 */
final class SafeSave {
  private static final String ASIDE = ".joiner-save";
  private static final String DECLARED = ".joiner-saved";

  private final Path folder;

  SafeSave(Path folder) {
    this.folder = folder;
  }

  /** Where the valid text of a file stands now. */
  Path current(String path) {
    Path aside = folder.resolve(DECLARED).resolve(path);
    return Files.isRegularFile(aside) ? aside : folder.resolve(path);
  }

  /** Saves those texts; files whose text is the same already are not touched. */
  void save(Map<String, String> files) throws IOException {
    finish();
    Map<String, String> changed = changed(files);
    if (changed.isEmpty()) {
      return;
    }
    Path aside = folder.resolve(ASIDE);
    delete(aside);
    for (Map.Entry<String, String> file : changed.entrySet()) {
      write(aside.resolve(file.getKey()), file.getValue());
    }
    force(aside);
    Files.move(aside, folder.resolve(DECLARED), StandardCopyOption.ATOMIC_MOVE);
    force(folder);
    finish();
  }

  private Map<String, String> changed(Map<String, String> files) throws IOException {
    Map<String, String> changed = new LinkedHashMap<>();
    for (Map.Entry<String, String> file : files.entrySet()) {
      Path target = folder.resolve(file.getKey());
      byte[] wanted = file.getValue().getBytes(StandardCharsets.UTF_8);
      if (!Files.isRegularFile(target)
          || !java.util.Arrays.equals(Files.readAllBytes(target), wanted)) {
        changed.put(file.getKey(), file.getValue());
      }
    }
    return changed;
  }

  /** Moves declared texts to their places; does nothing where none are declared. */
  private void finish() throws IOException {
    Path declared = folder.resolve(DECLARED);
    if (!Files.isDirectory(declared)) {
      return;
    }
    List<Path> files;
    try (Stream<Path> walk = Files.walk(declared)) {
      files = walk.filter(Files::isRegularFile).sorted().toList();
    }
    for (Path file : files) {
      Path target = folder.resolve(declared.relativize(file).toString());
      Files.createDirectories(target.getParent());
      Files.move(file, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }
    force(folder);
    delete(declared);
  }

  private static void write(Path file, String text) throws IOException {
    Files.createDirectories(file.getParent());
    try (FileChannel channel =
        FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
      var bytes = java.nio.ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8));
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
