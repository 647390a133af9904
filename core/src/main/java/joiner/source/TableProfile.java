package joiner.source;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import joiner.discovery.ColumnProfile;
import joiner.format.UnreadableFileException;

/**
 * What the columns of one table of a source show.
 *
 * @param name of the table
 * @param rows how many it has
 */
public record TableProfile(String name, long rows, List<ColumnProfile> columns) {
  public TableProfile {
    columns = List.copyOf(columns);
  }

  /**
   * The profiles of a file.
   *
   * @param tables one for each table
   * @param problems met while reading
   */
  public record OfFile(List<TableProfile> tables, List<SourceProblem> problems) {
    public OfFile {
      tables = List.copyOf(tables);
      problems = List.copyOf(problems);
    }
  }

  /**
   * Profiles a file while it is read, on the side, keeping no rows: memory is bounded by the
   * different values that are kept for counting, whatever the size of the file.
   */
  public static OfFile scan(Path file, ReadingOptions options)
      throws IOException, UnreadableFileException {
    try (var tables = new ProfiledTables()) {
      List<SourceProblem> problems = SourceFile.scan(file, options, tables);
      return new OfFile(tables.profiles(), problems);
    }
  }
}
