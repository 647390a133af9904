package joiner.reasoning;

import java.util.List;
import java.util.Optional;
import joiner.model.Rule;

/**
 * What the conditions on each row of a table are like together.
 *
 * @param row a row that keeps all of them, as far as they read it; empty where none was found
 * @param clashing the fewest of them that no row keeps together; empty where there are none
 */
public record Together(Optional<Witness> row, List<Rule> clashing) {
  public Together {
    clashing = List.copyOf(clashing);
  }
}
