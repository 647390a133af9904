package joiner.engine;

import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Expression;

/**
 * Expressions for engines whose lengths have 64 bits: with them a sum would not stop where it does
 * elsewhere, so what is computed with gets 32.
 */
abstract class WideLengthText extends IsoText {
  /** Writes what is computed with; empty: this does. */
  private final Optional<? extends WideLengthText> computing;

  WideLengthText(UnaryOperator<String> quoteName, Optional<? extends WideLengthText> computing) {
    super(quoteName);
    this.computing = computing;
  }

  @Override
  protected final String compute(Expression.Compute e) {
    return computing.isPresent() ? computing.get().compute(e) : computed(e);
  }

  /** Arithmetic. */
  String computed(Expression.Compute e) {
    return super.compute(e);
  }

  /** A whole number of 64 bits that has 32 elsewhere. */
  final String wide(String number) {
    return computing.isPresent() ? number : "CAST(" + number + " AS integer)";
  }
}
