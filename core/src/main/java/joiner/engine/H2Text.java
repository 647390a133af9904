package joiner.engine;

import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Expression;

/** Expressions for H2. */
final class H2Text extends IsoText {
  /** Writes what is computed with; empty: this does. */
  private final Optional<H2Text> computing;

  H2Text(UnaryOperator<String> quoteName) {
    this(quoteName, Optional.of(new H2Text(quoteName, Optional.empty())));
  }

  private H2Text(UnaryOperator<String> quoteName, Optional<H2Text> computing) {
    super(quoteName);
    this.computing = computing;
  }

  /** A quotient of decimals would be cut off after as many decimals as the two have. */
  @Override
  protected String compute(Expression.Compute e) {
    if (computing.isPresent()) {
      return computing.get().compute(e);
    }
    return e.operator() == Expression.Arithmetic.DIVIDE && !e.whole()
        ? "CAST(" + write(e.left()) + " AS decfloat) / (" + write(e.right()) + ")"
        : super.compute(e);
  }

  /** A length has 64 bits here, with which a sum would not stop where it does elsewhere. */
  @Override
  protected String call(Expression.Call e) {
    return switch (e.function()) {
      case SUBSTRING -> {
        if (!Positions.arePlain(e.arguments())) {
          throw new InexpressibleException(
              "H2 counts SUBSTRING positions from the end where they are below 1");
        }
        yield super.call(e);
      }
      case CHAR_LENGTH ->
          computing.isPresent() ? super.call(e) : "CAST(" + super.call(e) + " AS integer)";
      case UPPER, LOWER, TRIM, POSITION, ABS, MOD, FLOOR, CEILING, COALESCE, NULLIF ->
          super.call(e);
    };
  }
}
