package joiner.engine;

import java.util.List;
import joiner.expression.Expression;
import joiner.expression.Value;

/** Positions in a text, which engines count alike only from 1 on. */
final class Positions {
  private Positions() {}

  /** Whether everything behind the text is a whole number from 1 on, written out. */
  private static boolean arePlain(List<Expression> arguments) {
    return arguments.stream().skip(1).allMatch(Positions::isPlain);
  }

  /** Refuses positions that may be below 1. */
  static void require(List<Expression> arguments, String engine) {
    if (!arePlain(arguments)) {
      throw new InexpressibleException(
          engine + " counts SUBSTRING positions from the end where they are below 1");
    }
  }

  private static boolean isPlain(Expression argument) {
    return argument instanceof Expression.Literal literal
        && literal.value() instanceof Value.Num num
        && num.whole()
        && num.number().signum() > 0;
  }
}
