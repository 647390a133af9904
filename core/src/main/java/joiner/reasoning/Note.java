package joiner.reasoning;

import java.util.Optional;
import joiner.model.FieldId;

/**
 * Something that follows from a rule.
 *
 * @param field what it follows for; empty: for the rule itself
 * @param words a sentence
 */
public record Note(Kind kind, Optional<FieldId> field, String words) {
  /** What it is about. */
  public enum Kind {
    /** It is true of no row: rows pass only where it is unknown. */
    NEVER_TRUE,
    /** No row passes without a value. */
    REQUIRES,
    /** No row passes with a value. */
    EMPTIES,
    /** No row passes that has the default. */
    REFUSES_DEFAULT,
    /** Another rule says the very same. */
    EQUAL,
    /** Anything else. */
    OTHER
  }
}
