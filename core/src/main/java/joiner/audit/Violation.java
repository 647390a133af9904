package joiner.audit;

import java.util.List;
import joiner.model.FieldId;
import joiner.model.TableId;

/**
 * Rows of one table that break one constraint.
 *
 * @param kind what sort of constraint
 * @param table whose rows they are
 * @param fields the fields the constraint is about
 * @param constraint its name
 * @param count how many rows offend; for keys the rows beyond the first of each group
 * @param rows numbers of the first of them, from 1, ascending; of rows in memory all
 * @param message a sentence a person understands
 */
public record Violation(
    Kind kind,
    TableId table,
    List<FieldId> fields,
    String constraint,
    long count,
    List<Integer> rows,
    String message) {

  public Violation {
    fields = List.copyOf(fields);
    rows = List.copyOf(rows);
  }

  /** Sorts of constraints. */
  public enum Kind {
    WRONG_TYPE("wrong-type"),
    TOO_LONG("too-long"),
    MISSING_REQUIRED("missing-required"),
    NOT_IN_LIST("not-in-list"),
    DUPLICATE_KEY("duplicate-key"),
    ORPHAN("orphan"),
    CHILDLESS("childless"),
    RULE("rule"),
    COMPUTED("computed");

    private final String id;

    Kind(String id) {
      this.id = id;
    }

    /** The word used by the command line. */
    public String id() {
      return id;
    }
  }
}
