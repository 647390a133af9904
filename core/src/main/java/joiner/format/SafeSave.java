package joiner.format;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Saves several files so that a kill at any moment leaves all old or all new ones. New contents are
 * written aside and forced to disk; then one rename (write aside, fsync, rename) declares them
 * valid; then each is moved to its place and what is to go is deleted. A reader that finds the
 * declaration takes the new contents from aside, and the next save finishes the moves first. Only a
 * declaration that this user signed counts; one that came with a folder is left aside. Savers of
 * one folder take turns.
 */
final class SafeSave {
  private static final String ASIDE = ".joiner-save";
  private static final String DECLARED = ".joiner-saved";

  /** Lists, in the declared folder, the files that go. */
  private static final String GOING = ".going";

  /** Lists, in the declared folder, all its other files, below the signature of that list. */
  private static final String SIGNED = ".signed";

  private static final String FOREIGN = ".joiner-saved-elsewhere";

  private final Path folder;
  private Optional<FileTime> checked = Optional.empty();
  private boolean ours;

  SafeSave(Path folder) {
    this.folder = folder;
  }

  /** Where the valid content of a file stands now; the path stays inside the folder. */
  Path current(String path) {
    return RowPaths.inside(folder.resolve(DECLARED), path)
        .filter(Files::isRegularFile)
        .filter(file -> isOurs())
        .orElseGet(() -> place(path));
  }

  /** Whether there is a declared save that is not used, for this user did not make it. */
  boolean holdsForeignSave() {
    return Files.isDirectory(folder.resolve(DECLARED)) && !isOurs();
  }

  /** Whether this user made the declared save; a save once looked at is known. */
  private boolean isOurs() {
    Path declared = folder.resolve(DECLARED);
    Path signed = declared.resolve(SIGNED);
    try {
      FileTime now = Files.getLastModifiedTime(signed);
      if (!checked.equals(Optional.of(now))) {
        ours = isSigned(declared, Files.readString(signed));
        checked = Optional.of(now);
      }
      return ours;
    } catch (IOException e) {
      return false; // It is gone: finished meanwhile, or never signed.
    }
  }

  /** Signs everything in a folder. */
  static void sign(Path aside) throws IOException {
    String listing = listing(aside);
    String signed = SaveKey.sign(listing) + "\n" + listing;
    write(aside.resolve(SIGNED), signed.getBytes(StandardCharsets.UTF_8));
  }

  /** Whether the list is signed and every file still there is as listed. */
  private static boolean isSigned(Path declared, String signed) throws IOException {
    int end = signed.indexOf('\n');
    if (end < 0 || !SaveKey.isOurs(signed.substring(end + 1), signed.substring(0, end))) {
      return false;
    }
    Set<String> listed = signed.lines().skip(1).collect(Collectors.toSet());
    return listing(declared).lines().allMatch(listed::contains);
  }

  /** Everything declared, one line a file; a link is no file of it. */
  private static String listing(Path declared) throws IOException {
    var lines = new StringBuilder();
    for (Path file : files(declared)) {
      String path = declared.relativize(file).toString();
      if (!path.equals(SIGNED)) {
        lines.append(Fingerprint.digest(file)).append(' ').append(path);
        lines.append('\n');
      }
    }
    return lines.toString();
  }

  private static List<Path> files(Path declared) throws IOException {
    try (Stream<Path> walk = Files.walk(declared)) {
      return walk.filter(file -> Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS))
          .sorted()
          .toList();
    }
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
   * Saves those files; one whose content is the same already is not touched. The caller has the
   * {@link SavingTurn}.
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
    sign(aside);
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
  private void finish() throws IOException {
    Path declared = folder.resolve(DECLARED);
    if (!Files.isDirectory(declared)) {
      return;
    }
    if (!isOurs()) {
      setAside(declared);
      return;
    }
    for (Path file : files(declared)) {
      String path = declared.relativize(file).toString();
      if (!path.equals(GOING) && !path.equals(SIGNED)) {
        Path target = place(path);
        Files.createDirectories(target.getParent());
        Files.move(
            file, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
      }
    }
    Path going = declared.resolve(GOING);
    if (Files.isRegularFile(going)) {
      for (String path : Files.readString(going).lines().toList()) {
        Files.deleteIfExists(place(path));
      }
    }
    force(folder);
    Files.deleteIfExists(going);
    delete(declared); // The signature goes last: whatever is left until then is known to be ours.
  }

  /** Keeps what somebody else declared, under a name that means nothing. */
  private void setAside(Path declared) throws IOException {
    if (files(declared).isEmpty()) {
      delete(declared);
      return;
    }
    Path kept = folder.resolve(FOREIGN);
    for (int number = 2; Files.exists(kept, LinkOption.NOFOLLOW_LINKS); number++) {
      kept = folder.resolve(FOREIGN + "-" + number);
    }
    Files.move(declared, kept, StandardCopyOption.ATOMIC_MOVE);
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
