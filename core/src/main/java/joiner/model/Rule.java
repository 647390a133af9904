package joiner.model;

import joiner.expression.Formula;

/**
 * A condition every row of a table meets.
 *
 * @param id stays the same for the rule's whole life
 * @param name what the database gets; unique within the table
 * @param label what people read
 * @param condition an SQL search condition over field names, as typed; may be wrong while it is
 *     edited
 * @param message what a person reads whose row is refused
 */
public record Rule(RuleId id, String name, String label, Formula condition, String message) {
  public Rule {
    if (name.isBlank()) {
      throw new IllegalArgumentException("rule name is blank");
    }
  }

  /** A new rule; its id is its name. */
  public Rule(String name, String label, Formula condition, String message) {
    this(new RuleId(name), name, label, condition, message);
  }

  /** A new rule, whose condition is given as its text; its id is its name. */
  public Rule(String name, String label, String condition, String message) {
    this(name, label, new Formula(condition), message);
  }

  public Rule withId(RuleId other) {
    return new Rule(other, name, label, condition, message);
  }

  public Rule withName(String other) {
    return new Rule(id, other, label, condition, message);
  }

  public Rule withCondition(Formula other) {
    return new Rule(id, name, label, other, message);
  }

  public Rule withMessage(String other) {
    return new Rule(id, name, label, condition, other);
  }

  public Rule withLabel(String other) {
    return new Rule(id, name, other, condition, message);
  }
}
