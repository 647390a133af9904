package joiner.model;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

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
}
