package joiner.audit;

import java.util.List;
import joiner.model.FieldId;
import joiner.model.TableId;

/**
 * A value that is probably a slip, such as one that differs from another by its case only.
 *
 * @param rows numbers of the rows, from 1
 * @param message a sentence a person understands
 */
public record Hint(TableId table, FieldId field, List<Integer> rows, String message) {
  public Hint {
    rows = List.copyOf(rows);
  }
}
