package joiner.catalog;

import joiner.expression.Width;
import joiner.model.FieldType;

/** What a column holds, after ISO/IEC 9075-2; engines spell it each in their way. */
public sealed interface SqlType {
  /** Text of at most so many characters. */
  record Varchar(int length) implements SqlType {}

  /** Text without a limit. */
  record LongText() implements SqlType {}

  /** A whole number. */
  record Whole(Width width) implements SqlType {}

  /** An exact number. */
  record Decimal(int precision, int scale) implements SqlType {}

  /** A number of any size. */
  record AnyNumber() implements SqlType {}

  /** True or false. */
  record TrueFalse() implements SqlType {}

  /** A calendar date. */
  record Date() implements SqlType {}

  /** A time of day. */
  record Time() implements SqlType {}

  /** A date with a time of day; {@code zoned} ones are points in time. */
  record Timestamp(boolean zoned) implements SqlType {}

  /** A universally unique identifier. */
  record Uuid() implements SqlType {}

  /** Bytes without a limit. */
  record Bytes() implements SqlType {}

  /** What an engine has and this list has not, as the engine spells it. */
  record Other(String spelled) implements SqlType {}

  /** What a field of that type is kept as. */
  static SqlType of(FieldType type) {
    return switch (type) {
      case FieldType.Sized t -> new Varchar(t.maxLength());
      case FieldType.Choice t -> new Varchar(t.longest());
      case FieldType.LongText t -> new LongText();
      case FieldType.Kept t -> new LongText();
      case FieldType.WholeNumber t -> new Whole(t.width());
      case FieldType.Counter t -> new Whole(t.width());
      case FieldType.Decimal t -> new Decimal(t.precision(), t.scale());
      case FieldType.Money t -> new Decimal(t.precision(), t.scale());
      case FieldType.AnyNumber t -> new AnyNumber();
      case FieldType.TrueFalse t -> new TrueFalse();
      case FieldType.Date t -> new Date();
      case FieldType.Time t -> new Time();
      case FieldType.DateTime t -> new Timestamp(t.zoned());
      case FieldType.Uuid t -> new Uuid();
      case FieldType.Content t -> new Bytes();
    };
  }
}
