package joiner.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import joiner.format.ChangedOutsideException;
import joiner.format.DesignFolder;
import joiner.format.DesignStore;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;

/**
 * A design a command reads, changes and saves. Nobody else works on it meanwhile: who comes second
 * waits a little and is then told by whom it is held.
 */
final class DesignInHand implements AutoCloseable {
  private static final long PATIENCE_NANOS = 20_000_000_000L;

  private final DesignStore store;
  private final Optional<Draft> found;
  private final boolean made;

  private DesignInHand(DesignStore store, Optional<Draft> found, boolean made) {
    this.store = store;
    this.found = found;
    this.made = made;
  }

  /** Takes the design in a folder, which is made if it is not there. */
  static DesignInHand take(Path path) throws IOException, UnreadableFileException {
    Path folder = DesignFolder.folderOf(path);
    boolean made = !Files.exists(folder);
    Files.createDirectories(folder);
    DesignStore store = DesignStore.at(folder);
    lock(store, folder);
    try {
      Optional<Draft> found =
          store.holdsDesign() ? Optional.of(store.open().draft()) : Optional.empty();
      return new DesignInHand(store, found, made);
    } catch (IOException | RuntimeException e) {
      store.close();
      throw e;
    }
  }

  private static void lock(DesignStore store, Path folder)
      throws IOException, UnreadableFileException {
    long end = System.nanoTime() + PATIENCE_NANOS;
    Optional<String> holder = store.lock();
    while (holder.isPresent()) {
      if (System.nanoTime() > end) {
        throw new UnreadableFileException(
            folder, 0, holder.get() + " works on this design; close it there, or try again later.");
      }
      try {
        Thread.sleep(25);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw new IOException("waiting for the design was interrupted", e);
      }
      holder = store.lock();
    }
  }

  /** The design that is there already. */
  Optional<Draft> found() {
    return found;
  }

  /** Saves the changed design. */
  void save(Draft draft) throws IOException, UnreadableFileException {
    try {
      store.save(draft);
    } catch (ChangedOutsideException e) {
      throw new UnreadableFileException(store.folder(), 0, e.getMessage() + " Try again.");
    }
  }

  /** Lets the design go; a folder made for one that was not saved goes too. */
  @Override
  public void close() throws IOException {
    store.close();
    if (made && !store.holdsDesign()) {
      Files.deleteIfExists(store.folder());
    }
  }
}
