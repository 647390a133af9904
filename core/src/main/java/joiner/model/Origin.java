package joiner.model;

import java.util.Optional;
import joiner.expression.Formula;

/** Where the values of a field come from. A closed set. */
public sealed interface Origin {
  /** Most are entered by people. */
  Origin TYPED = new Typed();

  /** People enter them. */
  record Typed() implements Origin {}

  /**
   * They are worked out, from other fields of the row and of rows it leads to; nobody enters them.
   *
   * @param formula an SQL value expression
   */
  record Computed(Formula formula) implements Origin {}

  /** What they are worked out by, if they are. */
  default Optional<Formula> workedOutBy() {
    return switch (this) {
      case Typed typed -> Optional.empty();
      case Computed computed -> Optional.of(computed.formula());
    };
  }

  /** The same with another formula, where there is one. */
  default Origin withFormula(Formula other) {
    return switch (this) {
      case Typed typed -> typed;
      case Computed computed -> new Computed(other);
    };
  }
}
