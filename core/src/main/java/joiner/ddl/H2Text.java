package joiner.ddl;

import java.util.function.UnaryOperator;
import joiner.expression.Expression;

/** Expressions for H2. */
final class H2Text extends IsoText {
  H2Text(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  /** A quotient of decimals would be cut off after as many decimals as the two have. */
  @Override
  protected String compute(Expression.Compute e) {
    return e.operator() == Expression.Arithmetic.DIVIDE && !e.whole()
        ? "CAST(" + write(e.left()) + " AS decfloat) / (" + write(e.right()) + ")"
        : super.compute(e);
  }

  @Override
  protected String call(Expression.Call e) {
    boolean counted = e.function() == Expression.Function.SUBSTRING;
    if (counted && !Positions.arePlain(e.arguments())) {
      throw new InexpressibleException(
          "H2 counts SUBSTRING positions from the end where they are below 1");
    }
    return super.call(e);
  }
}
