package joiner.model;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.expression.Expression.Comparison;

/**
 * Bounds of one field's values as the Data Package standard states them. All texts are kept as
 * written, in the lexical form of the field's type.
 *
 * @param minimum smallest value allowed
 * @param maximum greatest value allowed
 * @param above every value is greater than this
 * @param below every value is smaller than this
 * @param pattern regular expression (XML Schema flavour) the whole text matches
 * @param minLength fewest code points
 * @param allowed the only values allowed, for fields that are not a choice; empty: no list
 */
public record Limits(
    Optional<String> minimum,
    Optional<String> maximum,
    Optional<String> above,
    Optional<String> below,
    Optional<String> pattern,
    OptionalInt minLength,
    List<String> allowed) {

  /** No bounds at all. */
  public static final Limits NONE =
      new Limits(
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          OptionalInt.empty(),
          List.of());

  /** The sides on which values may be bounded, in the order bounds are told. */
  public static final List<Comparison> SIDES =
      List.of(Comparison.AT_LEAST, Comparison.AT_MOST, Comparison.GREATER, Comparison.LESS);

  public Limits {
    allowed = List.copyOf(allowed);
  }

  /** A range with both ends allowed. */
  public static Limits between(String minimum, String maximum) {
    return new Limits(
        Optional.of(minimum),
        Optional.of(maximum),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        OptionalInt.empty(),
        List.of());
  }

  /** The same bounds with another pattern. */
  public Limits withPattern(Optional<String> other) {
    return new Limits(minimum, maximum, above, below, other, minLength, allowed);
  }

  /** The same bounds with another inclusive range. */
  public Limits withRange(Optional<String> least, Optional<String> greatest) {
    return new Limits(least, greatest, above, below, pattern, minLength, allowed);
  }

  /** The same bounds with another list of the only values allowed; empty: no list. */
  public Limits withAllowed(List<String> values) {
    return new Limits(minimum, maximum, above, below, pattern, minLength, values);
  }

  /** The same bounds with another least length. */
  public Limits withMinLength(OptionalInt least) {
    return new Limits(minimum, maximum, above, below, pattern, least, allowed);
  }

  /** The bound on one side of the values; there is none for equal and not equal. */
  public Optional<String> bound(Comparison side) {
    return switch (side) {
      case AT_LEAST -> minimum;
      case AT_MOST -> maximum;
      case GREATER -> above;
      case LESS -> below;
      case EQUAL, NOT_EQUAL -> Optional.empty();
    };
  }

  /** The same bounds with another on one side; equal and not equal are no bounds. */
  public Limits withBound(Comparison side, Optional<String> other) {
    return switch (side) {
      case AT_LEAST -> new Limits(other, maximum, above, below, pattern, minLength, allowed);
      case AT_MOST -> new Limits(minimum, other, above, below, pattern, minLength, allowed);
      case GREATER -> new Limits(minimum, maximum, other, below, pattern, minLength, allowed);
      case LESS -> new Limits(minimum, maximum, above, other, pattern, minLength, allowed);
      case EQUAL, NOT_EQUAL -> throw new IllegalArgumentException(side + " bounds nothing");
    };
  }
}
