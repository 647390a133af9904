package joiner.meaning;

import java.math.BigDecimal;
import java.util.List;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Value;

/** Means of numbers, said by their sum and their count. */
public final class Means {
  private Means() {}

  /** A sum by a count, rounded to so many decimals; without a value where the count is 0. */
  public static Expression of(Expression sum, Expression count, int decimals) {
    var one = new Value.Num(new BigDecimal("1.0"), false);
    Expression exact =
        new Expression.Compute(
            Expression.Arithmetic.TIMES,
            sum,
            new Expression.Literal(one, Kind.NUMBER, Place.NOWHERE),
            false,
            Place.NOWHERE);
    Expression unlessNone = call(Expression.Function.NULLIF, count, whole(0));
    Expression mean =
        new Expression.Compute(
            Expression.Arithmetic.DIVIDE, exact, unlessNone, false, Place.NOWHERE);
    return call(Expression.Function.ROUND, mean, whole(decimals));
  }

  private static Expression whole(int number) {
    return new Expression.Literal(Value.whole(number), Kind.WHOLE, Place.NOWHERE);
  }

  private static Expression call(Expression.Function function, Expression... arguments) {
    return new Expression.Call(function, List.of(arguments), Place.NOWHERE);
  }
}
