package joiner.format;

import java.io.IOException;
import java.nio.file.Path;

/** The turn of one saver of a folder among all of this machine, in this process or another. */
final class SavingTurn implements AutoCloseable {
  private static final String FILE = ".joiner-saving";
  private static final long PATIENCE_NANOS = 30_000_000_000L;

  private final MarkedFile file;

  private SavingTurn(MarkedFile file) {
    this.file = file;
  }

  /** Waits for the turn. */
  static SavingTurn in(Path folder) throws IOException {
    long end = System.nanoTime() + PATIENCE_NANOS;
    while (System.nanoTime() < end) {
      String mark = ProcessHandle.current().pid() + " " + System.nanoTime();
      if (MarkedFile.attempt(folder.resolve(FILE), mark) instanceof MarkedFile.Attempt.Held held) {
        return new SavingTurn(held.file());
      }
      pause();
    }
    throw new IOException(
        "somebody else has been saving into " + folder + " for half a minute; try again");
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
    file.close();
  }
}
