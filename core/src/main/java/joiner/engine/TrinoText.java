package joiner.engine;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Value;

/** Expressions for Trino. */
final class TrinoText extends WideLengthText {
  private static final String ENGINE = "Trino";

  TrinoText(UnaryOperator<String> quoteName) {
    this(quoteName, Optional.of(new TrinoText(quoteName, Optional.empty())));
  }

  private TrinoText(UnaryOperator<String> quoteName, Optional<TrinoText> computing) {
    super(quoteName, computing);
  }

  @Override
  protected String literal(Value value) {
    return value instanceof Value.Zoned moment
        ? "TIMESTAMP '" + Evaluator.show(moment).replace('T', ' ').replace("Z", " UTC") + "'"
        : super.literal(value);
  }

  /** It has no truth test, but a comparison that knows what is empty. */
  @Override
  protected String truthTest(String operand, String truth, boolean negated) {
    if (truth.equals("UNKNOWN")) {
      return "(" + operand + ") IS" + not(negated) + " NULL";
    }
    return "(" + operand + ") IS" + (negated ? "" : " NOT") + " DISTINCT FROM " + truth;
  }

  /** It has no escape character unless one is named. */
  @Override
  protected String like(Expression.Like e) {
    return plainLike(e);
  }

  /** A quotient of decimals would be cut off after as many decimals as the two have. */
  @Override
  String computed(Expression.Compute e) {
    boolean divides = e.operator() == Expression.Arithmetic.DIVIDE;
    if (divides) {
      Divisors.require(e.right(), ENGINE);
    }
    return divides && !e.whole()
        ? "CAST(" + write(e.left()) + " AS double) / (" + write(e.right()) + ")"
        : super.computed(e);
  }

  @Override
  protected String call(Expression.Call e) {
    List<Expression> arguments = e.arguments();
    return switch (e.function()) {
      case SUBSTRING -> {
        Positions.require(arguments, ENGINE);
        yield super.call(e);
      }
      case CHAR_LENGTH -> wide("length(" + write(arguments.getFirst()) + ")");
      case POSITION -> wide(super.call(e));
      case TRIM -> "TRIM(BOTH ' ' FROM " + write(arguments.getFirst()) + ")";
      case MOD -> {
        Divisors.require(arguments.get(1), ENGINE);
        yield super.call(e);
      }
      case UPPER, LOWER, ABS, FLOOR, CEILING, COALESCE, NULLIF -> super.call(e);
    };
  }
}
