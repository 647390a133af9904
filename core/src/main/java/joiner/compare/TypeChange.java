package joiner.compare;

import joiner.model.FieldType;

/** What another type does to the values a field has. */
final class TypeChange {
  private TypeChange() {}

  /**
   * Digits behind the point that the new type has not are rounded away by engines; other values
   * that the new type cannot hold make the change fail.
   */
  static Risk risk(FieldType before, FieldType after) {
    if (isNumber(after) && decimals(after) < decimals(before)) {
      return Risk.LOSES;
    }
    return takesAll(before, after) ? Risk.REWRITES : Risk.REFUSES;
  }

  /** Whether each value of one type, as its text, is a value of another. */
  static boolean takesAll(FieldType before, FieldType after) {
    return switch (after) {
      case FieldType.LongText t -> true;
      case FieldType.Text t -> before.length().orElse(Integer.MAX_VALUE) <= t.maxLength();
      case FieldType.Sized t ->
          before.getClass() == t.getClass()
              && before.length().orElse(Integer.MAX_VALUE) <= t.maxLength();
      case FieldType.Choice t ->
          before instanceof FieldType.Choice old && t.values().containsAll(old.values());
      case FieldType.WholeNumber t -> isWhole(before) && bits(before) <= t.width().bits();
      case FieldType.Counter t -> isWhole(before) && bits(before) <= t.width().bits();
      case FieldType.Decimal t -> takesNumbers(before, t.precision(), t.scale());
      case FieldType.Money t -> takesNumbers(before, t.precision(), t.scale());
      case FieldType.AnyNumber t -> isNumber(before);
      case FieldType.TrueFalse t -> before.equals(t);
      case FieldType.Date t -> before.equals(t);
      case FieldType.Time t -> before.equals(t);
      case FieldType.DateTime t -> before.equals(t);
      case FieldType.Uuid t -> before.equals(t);
      case FieldType.Content t -> before instanceof FieldType.Content old && t.takesAll(old);
      case FieldType.Kept t -> before.equals(t);
    };
  }

  private static boolean takesNumbers(FieldType before, int precision, int scale) {
    return isNumber(before) && decimals(before) <= scale && digits(before) <= precision - scale;
  }

  private static boolean isWhole(FieldType type) {
    return type instanceof FieldType.WholeNumber || type instanceof FieldType.Counter;
  }

  private static boolean isNumber(FieldType type) {
    return isWhole(type)
        || type instanceof FieldType.Decimal
        || type instanceof FieldType.Money
        || type instanceof FieldType.AnyNumber;
  }

  private static int bits(FieldType whole) {
    return whole.valueType().width().bits();
  }

  /** Decimals a value may have. */
  private static int decimals(FieldType type) {
    return type instanceof FieldType.AnyNumber
        ? Integer.MAX_VALUE
        : Math.max(0, type.valueType().scale());
  }

  /** Digits a value may have before the point. */
  private static int digits(FieldType type) {
    return switch (type) {
      case FieldType.Decimal t -> t.precision() - t.scale();
      case FieldType.Money t -> t.precision() - t.scale();
      default -> isWhole(type) ? String.valueOf(type.valueType().width().max()).length() : 0;
    };
  }
}
