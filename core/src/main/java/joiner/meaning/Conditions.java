package joiner.meaning;

import java.util.List;
import java.util.Optional;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.OwnField;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;

/** The conditions that say in SQL what the constraints of a field demand. */
final class Conditions {
  private Conditions() {}

  /** What a bound on that side is called. */
  static String bound(Comparison side) {
    return switch (side) {
      case AT_LEAST -> "minimum";
      case AT_MOST -> "maximum";
      case GREATER -> "above";
      case LESS -> "below";
      case EQUAL, NOT_EQUAL -> throw new IllegalArgumentException(side + " bounds nothing");
    };
  }

  static Expression in(Field field, List<String> texts) {
    List<Expression> options = texts.stream().map(text -> literal(text, field)).toList();
    return new Expression.In(read(field), options, false, Place.NOWHERE);
  }

  /** Texts are put in order by code points, as the audit does. */
  static Expression compare(Field field, Comparison side, String text) {
    Expression value = read(field);
    if (field.type().kind() == Kind.TEXT) {
      value = new Expression.CodePoints(value, Place.NOWHERE);
    }
    return new Expression.Compare(side, value, literal(text, field), Place.NOWHERE);
  }

  static Expression length(Field field, Comparison side, int length) {
    var counted =
        new Expression.Call(Expression.Function.CHAR_LENGTH, List.of(read(field)), Place.NOWHERE);
    var bound = new Expression.Literal(Value.whole(length), Kind.WHOLE, Place.NOWHERE);
    return new Expression.Compare(side, counted, bound, Place.NOWHERE);
  }

  static Expression bytes(Field field, int most) {
    var counted =
        new Expression.Call(Expression.Function.OCTET_LENGTH, List.of(read(field)), Place.NOWHERE);
    var bound = new Expression.Literal(Value.whole(most), Kind.WHOLE, Place.NOWHERE);
    return new Expression.Compare(Comparison.AT_MOST, counted, bound, Place.NOWHERE);
  }

  /** One @ with something on both sides and no blank. */
  static Expression address(Field field) {
    return new Expression.And(
        List.of(like(field, "%_@_%", false), like(field, "%@%@%", true), like(field, "% %", true)),
        Place.NOWHERE);
  }

  private static Expression like(Field field, String pattern, boolean negated) {
    var text = new Expression.Literal(new Value.Text(pattern), Kind.TEXT, Place.NOWHERE);
    return new Expression.Like(read(field), text, Optional.empty(), negated, Place.NOWHERE);
  }

  private static Expression read(Field field) {
    return new Expression.FieldRef(OwnField.of(field), Place.NOWHERE);
  }

  private static Expression literal(String text, Field field) {
    return ValueReader.bound(text, field.type()) instanceof ReadValue.Fits fits
        ? new Expression.Literal(fits.value(), field.type().kind(), Place.NOWHERE)
        : new Expression.Literal(new Value.Text(text), Kind.TEXT, Place.NOWHERE);
  }
}
