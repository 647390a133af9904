package joiner.ddl;

import java.util.Optional;
import joiner.model.FieldId;
import joiner.model.TableId;

/**
 * A part of the design that a target cannot express as it is meant.
 *
 * @param table the table it belongs to
 * @param subject what it is, as "the pattern of Email"
 * @param reason why it cannot be said and what follows, as a sentence
 * @param elsewhere whether the target keeps it all the same, in another place
 * @param valuesOf the field whose values the target does not make, if it is about that
 */
public record Shortfall(
    TableId table, String subject, String reason, boolean elsewhere, Optional<FieldId> valuesOf) {
  /** A part that is not kept. */
  public Shortfall(TableId table, String subject, String reason) {
    this(table, subject, reason, false, Optional.empty());
  }
}
