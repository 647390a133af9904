package joiner.engine;

import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Value;

/** Expressions for Trino. */
final class TrinoText extends StrictText {
  private static final String ENGINE = "Trino";

  TrinoText(UnaryOperator<String> quoteName) {
    this(quoteName, Optional.of(new TrinoText(quoteName, Optional.empty())));
  }

  private TrinoText(UnaryOperator<String> quoteName, Optional<TrinoText> computing) {
    super(quoteName, computing, ENGINE);
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

  /** A quotient of decimals would be cut off after as many decimals as the two have. */
  @Override
  String computed(Expression.Compute e) {
    boolean divides = e.operator() == Expression.Arithmetic.DIVIDE;
    if (divides) {
      requireDivisor(e.right());
    }
    return divides && !e.whole()
        ? "CAST(" + write(e.left()) + " AS double) / (" + write(e.right()) + ")"
        : super.computed(e);
  }

  @Override
  String word(Expression.Part part) {
    return part == Expression.Part.ISODOW ? "DAY_OF_WEEK" : super.word(part);
  }

  @Override
  String octets(String file) {
    return "length(" + file + ")";
  }

  @Override
  String days(String later, String earlier) {
    return wide("date_diff('day', " + earlier + ", " + later + ")");
  }

  @Override
  String seconds(String later, String earlier) {
    return "date_diff('second', " + earlier + ", " + later + ")";
  }
}
