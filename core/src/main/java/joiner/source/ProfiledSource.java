package joiner.source;

import java.util.List;
import joiner.discovery.ColumnProfile;
import joiner.rows.EncodedColumn;

/**
 * A source with what its columns show.
 *
 * @param profiles for each table those of its columns
 */
public record ProfiledSource(Source source, List<List<ColumnProfile>> profiles) {
  public ProfiledSource {
    profiles = profiles.stream().map(List::copyOf).toList();
  }

  /** Looks at every column of a source; linear in its cells. */
  public static ProfiledSource of(Source source) {
    return new ProfiledSource(
        source, source.tables().stream().map(ProfiledSource::profiles).toList());
  }

  private static List<ColumnProfile> profiles(SourceTable table) {
    List<EncodedColumn> columns = table.cells().columns();
    return columns.parallelStream().map(ColumnProfile::of).toList();
  }
}
