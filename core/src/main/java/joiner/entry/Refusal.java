package joiner.entry;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.audit.Violation;
import joiner.model.FieldId;
import joiner.model.TableId;

/**
 * Why a database that keeps the design would not take rows that are entered.
 *
 * @param entered which of the rows that are entered, from 0 in their order; empty where a row is
 *     meant that was there before
 * @param row the number of the row in its table once it would be entered, from 1
 * @param fields where it is to be shown
 * @param message the rule's own, else what is so, as a sentence
 */
public record Refusal(
    TableId table,
    OptionalInt entered,
    int row,
    List<FieldId> fields,
    Violation.Kind kind,
    String constraint,
    String message) {
  public Refusal {
    fields = List.copyOf(fields);
  }

  /** The first field it is about. */
  public Optional<FieldId> field() {
    return fields.stream().findFirst();
  }
}
