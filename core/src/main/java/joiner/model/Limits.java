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
 * @param shown the pattern that people see, where texts are kept without the marks it has; {@code
 *     pattern} is then the one without
 */
public record Limits(
    Optional<String> minimum,
    Optional<String> maximum,
    Optional<String> above,
    Optional<String> below,
    Optional<String> pattern,
    OptionalInt minLength,
    List<String> allowed,
    Optional<String> shown) {

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
    if (shown.isPresent() && pattern.isEmpty()) {
      throw new IllegalArgumentException("marks are left out of a pattern that is not there");
    }
  }

  /** Bounds of values that are kept as people see them. */
  public Limits(
      Optional<String> minimum,
      Optional<String> maximum,
      Optional<String> above,
      Optional<String> below,
      Optional<String> pattern,
      OptionalInt minLength,
      List<String> allowed) {
    this(minimum, maximum, above, below, pattern, minLength, allowed, Optional.empty());
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

  /** The same bounds with another pattern, of texts that are kept as people see them. */
  public Limits withPattern(Optional<String> other) {
    return new Limits(minimum, maximum, above, below, other, minLength, allowed);
  }

  /** The same bounds where texts are kept without the marks that people see. */
  public Limits withMarks(String bare, String seen) {
    return new Limits(
        minimum, maximum, above, below, Optional.of(bare), minLength, allowed, Optional.of(seen));
  }

  /** The pattern of texts as people see them. */
  public Optional<String> seen() {
    return shown.or(() -> pattern);
  }

  /** The same bounds with another inclusive range. */
  public Limits withRange(Optional<String> least, Optional<String> greatest) {
    return new Limits(least, greatest, above, below, pattern, minLength, allowed, shown);
  }

  /** The same bounds with another list of the only values allowed; empty: no list. */
  public Limits withAllowed(List<String> values) {
    return new Limits(minimum, maximum, above, below, pattern, minLength, values, shown);
  }

  /** The same bounds with another least length. */
  public Limits withMinLength(OptionalInt least) {
    return new Limits(minimum, maximum, above, below, pattern, least, allowed, shown);
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
      case AT_LEAST -> new Limits(other, maximum, above, below, pattern, minLength, allowed, shown);
      case AT_MOST -> new Limits(minimum, other, above, below, pattern, minLength, allowed, shown);
      case GREATER ->
          new Limits(minimum, maximum, other, below, pattern, minLength, allowed, shown);
      case LESS -> new Limits(minimum, maximum, above, other, pattern, minLength, allowed, shown);
      case EQUAL, NOT_EQUAL -> throw new IllegalArgumentException(side + " bounds nothing");
    };
  }
}
