package joiner.desktop.work;

import java.util.List;
import java.util.Optional;
import joiner.meaning.Draft;

/**
 * Files of the open design that somebody else changed.
 *
 * @param files by their paths below the folder
 * @param theirs the design as it stands there now; none where it cannot be read
 * @param differences between theirs and ours, a sentence each
 */
public record Conflict(List<String> files, Optional<Draft> theirs, List<String> differences) {
  public Conflict {
    files = List.copyOf(files);
    differences = List.copyOf(differences);
  }
}
