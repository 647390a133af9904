package joiner.format;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
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
  private Optional<FileChannel> held = Optional.empty();

  FolderLock(Path folder) {
    this.file = folder.resolve(FILE);
  }

  /** Takes the mark, or says who has it. */
  Optional<String> take() throws IOException {
    if (held.isPresent() || !Files.isDirectory(file.getParent())) {
      return Optional.empty();
    }
    FileChannel channel =
        FileChannel.open(
            file, StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE);
    if (tryLock(channel).isEmpty()) {
      channel.close();
      return Optional.of(holder());
    }
    channel.truncate(0);
    channel.write(ByteBuffer.wrap(ourselves().getBytes(StandardCharsets.UTF_8)));
    held = Optional.of(channel);
    return Optional.empty();
  }

  private static Optional<FileLock> tryLock(FileChannel channel) throws IOException {
    try {
      return Optional.ofNullable(channel.tryLock());
    } catch (OverlappingFileLockException e) {
      return Optional.empty(); // Another window of this very process has it.
    }
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
      FileChannel channel = held.get();
      held = Optional.empty();
      Files.deleteIfExists(file);
      channel.close();
    }
  }
}
