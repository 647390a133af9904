package joiner.model;

import java.util.Optional;
import joiner.expression.Formula;

/**
 * Something the rows of a table keep, which people give a name and a message.
 *
 * @param id stays the same for the rule's whole life
 * @param name what the database gets; unique within the table
 * @param label what people read
 * @param demand what is kept
 * @param message what a person reads whose row is refused
 */
public record Rule(RuleId id, String name, String label, Demand demand, String message) {
  public Rule {
    if (name.isBlank()) {
      throw new IllegalArgumentException("rule name is blank");
    }
  }

  /** A new rule; its id is its name. */
  public Rule(String name, String label, Demand demand, String message) {
    this(new RuleId(name), name, label, demand, message);
  }

  /** A new rule on each row; its id is its name. */
  public Rule(String name, String label, Formula condition, String message) {
    this(name, label, new Demand.OfRow(condition), message);
  }

  /** A new rule, whose condition is given as its text; its id is its name. */
  public Rule(String name, String label, String condition, String message) {
    this(name, label, new Formula(condition), message);
  }

  /** The condition on each row; empty where it demands something of several. */
  public Optional<Formula> condition() {
    return demand instanceof Demand.OfRow(Formula condition)
        ? Optional.of(condition)
        : Optional.empty();
  }

  public Rule withId(RuleId other) {
    return new Rule(other, name, label, demand, message);
  }

  public Rule withName(String other) {
    return new Rule(id, other, label, demand, message);
  }

  public Rule withDemand(Demand other) {
    return new Rule(id, name, label, other, message);
  }

  public Rule withCondition(Formula other) {
    return withDemand(new Demand.OfRow(other));
  }

  public Rule withMessage(String other) {
    return new Rule(id, name, label, demand, other);
  }

  public Rule withLabel(String other) {
    return new Rule(id, name, other, demand, message);
  }
}
