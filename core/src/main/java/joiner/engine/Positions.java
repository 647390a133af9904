package joiner.engine;

import java.util.List;
import joiner.expression.Expression;
import joiner.expression.Value;

/** Positions in a text, which engines count alike only from 1 on. */
final class Positions {
  private Positions() {}

  /** Whether everything behind the text is a whole number from 1 on, written out. */
  static boolean arePlain(List<Expression> arguments) {
    return arguments.stream().skip(1).allMatch(Positions::isPlain);
  }

  private static boolean isPlain(Expression argument) {
    return argument instanceof Expression.Literal literal
        && literal.value() instanceof Value.Num num
        && num.whole()
        && num.number().signum() > 0;
  }
}
