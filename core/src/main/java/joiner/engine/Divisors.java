package joiner.engine;

import joiner.expression.Expression;
import joiner.expression.Value;

/** Divisors, which some engines let be zero: they give NULL where others end with an error. */
final class Divisors {
  private Divisors() {}

  /** Refuses a divisor that may be zero; NULLIF(…, 0) never is. */
  static void require(Expression divisor, String engine) {
    boolean safe =
        divisor instanceof Expression.Literal literal
                && (literal.value() instanceof Value.Null
                    || literal.value() instanceof Value.Num num && num.number().signum() != 0)
            || isNulledWhereZero(divisor);
    if (!safe) {
      throw new InexpressibleException(
          engine + " gives NULL where a division by zero is an error elsewhere");
    }
  }

  private static boolean isNulledWhereZero(Expression divisor) {
    return divisor instanceof Expression.Call call
        && call.function() == Expression.Function.NULLIF
        && call.arguments().get(1) instanceof Expression.Literal zero
        && zero.value() instanceof Value.Num num
        && num.number().signum() == 0;
  }
}
