package joiner.format;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.TableId;
import joiner.rows.RowSource;

/**
 * Reads and saves designs as folders that are valid Data Packages (<a
 * href="https://datapackage.org">version 2</a>). A package that knows nothing of Joiner is read
 * too; what is not understood is kept and named.
 */
public final class DesignFolder {
  private DesignFolder() {}

  /**
   * What reading gave.
   *
   * @param draft the design and its rows
   * @param notices what was kept without being understood, a sentence each
   */
  public record Opened(Draft draft, List<String> notices) {
    public Opened {
      notices = List.copyOf(notices);
    }
  }

  /** The folder meant by a path: itself, or the one its {@code datapackage.json} stands in. */
  public static Path folderOf(Path path) {
    Path absolute = path.toAbsolutePath().normalize();
    return absolute.endsWith(DataPackage.FILE) ? absolute.getParent() : absolute;
  }

  /** Reads the design in a folder with its rows. */
  public static Opened open(Path path) throws IOException, UnreadableFileException {
    Path folder = folderOf(path);
    return SteadyReading.of(folder, new SafeSave(folder), Optional.empty()).opened();
  }

  /**
   * A design without rows, and where rows for it are.
   *
   * @param rows of each table that has a file; what could not be taken as meant is added to the
   *     notices while they go by
   * @param notices what was kept without being understood, a sentence each
   */
  public record Beside(Draft draft, Map<TableId, RowSource> rows, List<String> notices) {
    public Beside {
      rows = Map.copyOf(rows);
    }
  }

  /**
   * Reads the design in a folder, and finds rows for it in the CSV files {@code <table>.csv} of
   * another one, which are not read yet.
   */
  public static Beside beside(Path path, Path data) throws IOException, UnreadableFileException {
    Path folder = folderOf(path);
    if (!Files.isDirectory(data)) {
      throw new UnreadableFileException(
          data, 0, "there is no such folder; --data names a folder of CSV files.");
    }
    SteadyReading reading = SteadyReading.of(folder, new SafeSave(folder), Optional.of(data));
    PackageReader reader = reading.reader();
    return new Beside(reading.opened().draft(), reader.sources(), reader.notices());
  }

  /**
   * Saves a design with its rows into a folder, which is made if it is not there. A kill at any
   * moment leaves the old or the new design. Files that held rows of the design that was there and
   * hold none of this one go; all others stay untouched.
   */
  public static void save(Draft draft, Path path) throws IOException {
    try (DesignStore store = DesignStore.at(path)) {
      store.overwrite(draft);
    }
  }

  /** The files of a design in an empty folder: path below it → text. */
  static Map<String, String> files(Draft draft) throws IOException {
    Map<String, String> files = new LinkedHashMap<>();
    PackageWriter.write(draft, PackageWriter.Previous.NOTHING)
        .files()
        .forEach((path, content) -> files.put(path, new String(content, StandardCharsets.UTF_8)));
    return files;
  }
}
