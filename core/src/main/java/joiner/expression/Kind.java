package joiner.expression;

/** What sort of value an expression has, as far as comparing and computing goes. */
public enum Kind {
  BOOLEAN("true or false"),
  WHOLE("a whole number"),
  NUMBER("a number"),
  TEXT("text"),
  DATE("a date"),
  TIME("a time of day"),
  DATE_TIME("a date and time"),
  ZONED("a date and time with its zone"),
  UUID("a UUID"),
  INTERVAL("a length of time"),
  BYTES("the bytes of a file"),
  NULL("NULL");

  private final String words;

  Kind(String words) {
    this.words = words;
  }

  /** As people read it, with its article. */
  public String words() {
    return words;
  }

  /** Whether its values are numbers. */
  public boolean isNumeric() {
    return this == WHOLE || this == NUMBER;
  }

  /** Whether its values are days with a time of day. */
  public boolean isDayWithTime() {
    return this == DATE_TIME || this == ZONED;
  }

  /** Whether its values have an order people care for: numbers, and whatever a clock tells. */
  public boolean isOrdered() {
    return isNumeric() || isMoment() || this == TIME;
  }

  /** Whether its values are days, with a time of day or without. */
  public boolean isMoment() {
    return this == DATE || this == DATE_TIME || this == ZONED;
  }

  boolean isDateOrTime() {
    return this == DATE || this == DATE_TIME;
  }

  static boolean isUuidWithText(Kind left, Kind right) {
    return (left == UUID && right == TEXT) || (left == TEXT && right == UUID);
  }

  /** The kind that holds values of both, of two that can be compared. */
  Kind joinedWith(Kind other) {
    if (this == NULL) {
      return other;
    }
    if (this == other || other == NULL) {
      return this;
    }
    if (isNumeric()) {
      return NUMBER;
    }
    if (isUuidWithText(this, other)) {
      return UUID;
    }
    return isDateOrTime() ? DATE_TIME : this;
  }
}
