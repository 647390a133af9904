package joiner.model;

/** What is noted of itself when a row is made or changed. */
public enum Stamp {
  MADE_AT,
  MADE_BY,
  CHANGED_AT,
  CHANGED_BY;

  /** Whether it is noted again with each change; if not, it stays as it was first. */
  public boolean follows() {
    return this == CHANGED_AT || this == CHANGED_BY;
  }

  /** Whether it is a moment; if not, it is a person. */
  public boolean isMoment() {
    return this == MADE_AT || this == CHANGED_AT;
  }
}
