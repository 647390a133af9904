package joiner.format;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.Optional;

/**
 * A file that one process at a time holds, by a lock of the operating system that ends with the
 * process, however that ends. It says by whom it is held, and goes when it is let go. Where locks
 * follow POSIX, closing any channel of a file ends all locks a process has on it; so a file that is
 * held is never opened a second time but by the holder, who keeps that channel as long as the lock.
 */
final class MarkedFile implements AutoCloseable {
  private final Path file;
  private final FileChannel channel;
  private Optional<FileChannel> second = Optional.empty();

  private MarkedFile(Path file, FileChannel channel) {
    this.file = file;
    this.channel = channel;
  }

  /** What an attempt to hold a file gave. */
  sealed interface Attempt {
    /** It is held now. */
    record Held(MarkedFile file) implements Attempt {}

    /** Another process holds it. */
    record OfAnotherProcess() implements Attempt {}

    /** This very process holds it. */
    record OfThisProcess() implements Attempt {}
  }

  /** Tries to hold a file under a mark that no other holder uses. */
  static Attempt attempt(Path file, String mark) throws IOException {
    while (true) {
      FileChannel channel =
          FileChannel.open(
              file, StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE);
      var marked = new MarkedFile(file, channel);
      boolean held = false;
      try {
        FileLock lock = channel.tryLock();
        if (lock == null) {
          return new Attempt.OfAnotherProcess();
        }
        held = marked.mark(mark);
        if (held) {
          return new Attempt.Held(marked);
        }
      } catch (OverlappingFileLockException e) {
        return new Attempt.OfThisProcess();
      } finally {
        if (!held) {
          marked.closeChannels();
        }
      }
    }
  }

  /** Writes the mark; false if whoever held the file before deleted the one that was opened. */
  private boolean mark(String mark) throws IOException {
    byte[] bytes = mark.getBytes(StandardCharsets.UTF_8);
    channel.truncate(0);
    channel.write(ByteBuffer.wrap(bytes), 0);
    try {
      FileChannel again = FileChannel.open(file, StandardOpenOption.READ);
      second = Optional.of(again);
      return Arrays.equals(Channels.newInputStream(again).readAllBytes(), bytes);
    } catch (NoSuchFileException e) {
      return false;
    } catch (IOException e) {
      return true; // Some systems do not let a locked file be read; nor do they let it be deleted.
    }
  }

  private void closeChannels() throws IOException {
    if (second.isPresent()) {
      second.get().close();
    }
    channel.close();
  }

  /** Lets the file go. */
  @Override
  public void close() throws IOException {
    Files.deleteIfExists(file);
    closeChannels();
  }
}
