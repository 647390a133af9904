package joiner.expression;

import joiner.model.FieldType;

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
  NULL("NULL");

  private final String words;

  Kind(String words) {
    this.words = words;
  }

  /** As people read it, with its article. */
  public String words() {
    return words;
  }

  boolean isNumeric() {
    return this == WHOLE || this == NUMBER;
  }

  boolean isMoment() {
    return this == DATE || this == DATE_TIME || this == ZONED;
  }

  /** The kind of a field of that type. */
  public static Kind of(FieldType type) {
    return switch (type) {
      case FieldType.Sized t -> TEXT;
      case FieldType.LongText t -> TEXT;
      case FieldType.Choice t -> TEXT;
      case FieldType.Kept t -> TEXT;
      case FieldType.WholeNumber t -> WHOLE;
      case FieldType.Counter t -> WHOLE;
      case FieldType.Decimal t -> NUMBER;
      case FieldType.Money t -> NUMBER;
      case FieldType.AnyNumber t -> NUMBER;
      case FieldType.TrueFalse t -> BOOLEAN;
      case FieldType.Date t -> DATE;
      case FieldType.Time t -> TIME;
      case FieldType.DateTime t -> t.zoned() ? ZONED : DATE_TIME;
      case FieldType.Uuid t -> UUID;
    };
  }
}
