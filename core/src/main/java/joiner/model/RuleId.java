package joiner.model;

/**
 * Identity of a rule of a table. Stays the same when the rule is renamed.
 *
 * @param value non-blank text, unique within its table
 */
public record RuleId(String value) {
  public RuleId {
    if (value.isBlank()) {
      throw new IllegalArgumentException("rule id is blank");
    }
  }

  @Override
  public String toString() {
    return value;
  }
}
