package joiner.compare;

import java.util.Locale;
import java.util.Optional;

/**
 * One thing a change does, told to people.
 *
 * @param kind what sort of change it is
 * @param table name of the table it concerns, as it was, or as it comes
 * @param field name of the field it concerns, likewise
 * @param risk what it may do to data that is there
 * @param message a sentence
 */
public record Effect(
    Kind kind, Optional<String> table, Optional<String> field, Risk risk, String message) {

  /** The sorts of changes. */
  public enum Kind {
    DESIGN_CHANGED,
    TABLE_ADDED,
    TABLE_REMOVED,
    TABLE_RENAMED,
    TABLE_CHANGED,
    FIELD_ADDED,
    FIELD_REMOVED,
    FIELD_RENAMED,
    FIELD_CHANGED,
    KEY_CHANGED,
    INDEX_CHANGED,
    RULE_CHANGED,
    RELATIONSHIP_ADDED,
    RELATIONSHIP_REMOVED,
    RELATIONSHIP_CHANGED,
    ROWS_CHANGED,
    ORDER_CHANGED,
    /** A formula that could be read no longer can. */
    FORMULA_BROKEN,
    /** Rows that kept the design no longer do. */
    ROWS_BROKEN;

    /** As the command line spells it. */
    public String id() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }
}
