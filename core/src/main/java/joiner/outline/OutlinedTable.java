package joiner.outline;

import java.util.List;
import java.util.Optional;

/**
 * A table as it was written down.
 *
 * @param label what people read; empty where fields were listed that belong to no table yet
 */
public record OutlinedTable(Optional<String> label, List<OutlinedField> fields) {
  public OutlinedTable {
    fields = List.copyOf(fields);
  }
}
