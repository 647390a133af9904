package joiner.engine;

import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Expression;

/** Expressions for H2. */
final class H2Text extends WideLengthText {
  H2Text(UnaryOperator<String> quoteName) {
    this(quoteName, Optional.of(new H2Text(quoteName, Optional.empty())));
  }

  private H2Text(UnaryOperator<String> quoteName, Optional<H2Text> computing) {
    super(quoteName, computing);
  }

  /** A quotient of decimals would be cut off after as many decimals as the two have. */
  @Override
  String computed(Expression.Compute e) {
    return e.operator() == Expression.Arithmetic.DIVIDE && !e.whole()
        ? "CAST(" + write(e.left()) + " AS decfloat) / (" + write(e.right()) + ")"
        : super.computed(e);
  }

  @Override
  protected String call(Expression.Call e) {
    return switch (e.function()) {
      case SUBSTRING -> {
        Positions.require(e.arguments(), "H2");
        yield super.call(e);
      }
      case CHAR_LENGTH, OCTET_LENGTH -> wide(super.call(e));
      case UPPER,
          LOWER,
          TRIM,
          LTRIM,
          RTRIM,
          LPAD,
          RPAD,
          OVERLAY,
          CONCAT_WS,
          POSITION,
          ABS,
          MOD,
          ROUND,
          FLOOR,
          CEILING,
          COALESCE,
          NULLIF ->
          super.call(e);
    };
  }

  @Override
  String days(String later, String earlier) {
    return wide("DATEDIFF(DAY, " + earlier + ", " + later + ")");
  }
}
