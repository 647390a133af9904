package joiner.format;

import java.io.IOException;
import java.nio.ByteBuffer;
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
 * The turn of one saver of a folder among all of this machine, in this process or another. The turn
 * is a lock of the operating system on a file that goes when the turn ends, so that it ends with
 * the process, however that ends.
 */
final class SavingTurn implements AutoCloseable {
  private static final String FILE = ".joiner-saving";
  private static final long PATIENCE_NANOS = 30_000_000_000L;

  private final Path file;
  private final FileChannel channel;

  private SavingTurn(Path file, FileChannel channel) {
    this.file = file;
    this.channel = channel;
  }

  /** Waits for the turn. */
  static SavingTurn in(Path folder) throws IOException {
    Path file = folder.resolve(FILE);
    long end = System.nanoTime() + PATIENCE_NANOS;
    while (true) {
      Optional<SavingTurn> turn = attempt(file);
      if (turn.isPresent()) {
        return turn.get();
      }
      if (System.nanoTime() > end) {
        throw new IOException(
            "somebody else has been saving into " + folder + " for half a minute; try again");
      }
      pause();
    }
  }

  private static Optional<SavingTurn> attempt(Path file) throws IOException {
    FileChannel channel =
        FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
    boolean mine = false;
    try {
      FileLock lock = channel.tryLock();
      // Whoever had the turn before may have deleted the file that was opened here.
      mine = lock != null && isStill(file, channel);
      return mine ? Optional.of(new SavingTurn(file, channel)) : Optional.empty();
    } catch (OverlappingFileLockException e) {
      return Optional.empty();
    } finally {
      if (!mine) {
        channel.close();
      }
    }
  }

  /** Whether the opened file is the one that stands there, told by a mark written into it. */
  private static boolean isStill(Path file, FileChannel channel) throws IOException {
    String mark = ProcessHandle.current().pid() + " " + System.nanoTime();
    byte[] bytes = mark.getBytes(StandardCharsets.UTF_8);
    channel.truncate(0);
    channel.write(ByteBuffer.wrap(bytes), 0);
    try {
      return Arrays.equals(Files.readAllBytes(file), bytes);
    } catch (NoSuchFileException e) {
      return false;
    }
  }

  private static void pause() throws IOException {
    try {
      Thread.sleep(5);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("saving was interrupted", e);
    }
  }

  @Override
  public void close() throws IOException {
    Files.deleteIfExists(file);
    channel.close();
  }
}
