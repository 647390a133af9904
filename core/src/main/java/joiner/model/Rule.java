package joiner.model;

import joiner.expression.Formula;

/**
 * A condition every row of a table meets.
 *
 * @param name what the database gets; unique within the table
 * @param label what people read
 * @param condition an SQL search condition over field names, as typed; may be wrong while it is
 *     edited
 * @param message what a person reads whose row is refused
 */
public record Rule(String name, String label, Formula condition, String message) {
  public Rule {
    if (name.isBlank()) {
      throw new IllegalArgumentException("rule name is blank");
    }
  }

  /** A rule whose condition is given as its text. */
  public Rule(String name, String label, String condition, String message) {
    this(name, label, new Formula(condition), message);
  }

  public Rule withCondition(Formula other) {
    return new Rule(name, label, other, message);
  }

  public Rule withMessage(String other) {
    return new Rule(name, label, condition, other);
  }

  public Rule withLabel(String other) {
    return new Rule(name, other, condition, message);
  }
}
