package joiner.desktop.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import joiner.format.DesignFolder;
import joiner.format.DesignStore;
import joiner.format.UnreadableFileException;

/** Designs that have no folder of their own yet are kept here, so that a kill loses nothing. */
public final class Recovery {
  private final Path home;

  /** Something that was kept and that no running Joiner works on. */
  public record Kept(Path folder, String title, int tables, LocalDateTime changed) {}

  /** A recovery place in a folder, which need not be there. */
  public Recovery(Path home) {
    this.home = home;
  }

  /** A fresh store for a design without a folder. */
  public DesignStore fresh() {
    String name = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss-SSS").format(LocalDateTime.now());
    return DesignStore.at(home.resolve(name + "-" + ProcessHandle.current().pid()));
  }

  /** Whether a folder is one of those kept here. */
  public boolean holds(Path folder) {
    return folder.startsWith(home);
  }

  /** What was kept by windows that are gone, newest first. Reads files. */
  public List<Kept> kept() throws IOException {
    if (!Files.isDirectory(home)) {
      return List.of();
    }
    var kept = new ArrayList<Kept>();
    try (Stream<Path> folders = Files.list(home)) {
      for (Path folder : folders.sorted(Comparator.reverseOrder()).toList()) {
        try (DesignStore store = DesignStore.at(folder)) {
          if (store.holdsDesign() && store.lock().isEmpty()) {
            kept.add(describe(folder));
          }
        } catch (UnreadableFileException e) {
          // What cannot be read cannot be offered; it stays where it is.
        }
      }
    }
    return List.copyOf(kept);
  }

  private static Kept describe(Path folder) throws IOException, UnreadableFileException {
    var design = DesignFolder.open(folder).draft().design();
    FileTime time = Files.getLastModifiedTime(folder.resolve("datapackage.json"));
    return new Kept(
        folder,
        design.title(),
        design.tables().size(),
        LocalDateTime.ofInstant(time.toInstant(), ZoneId.systemDefault()));
  }

  /** Throws away what was kept in a folder of this place. */
  public void discard(Path folder) throws IOException {
    if (!holds(folder) || folder.equals(home)) {
      throw new IllegalArgumentException(folder + " is not in " + home);
    }
    if (Files.isDirectory(folder)) {
      try (Stream<Path> walk = Files.walk(folder)) {
        for (Path path : walk.sorted(Comparator.reverseOrder()).toList()) {
          Files.delete(path);
        }
      }
    }
  }
}
