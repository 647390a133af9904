package joiner.engine;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Expression;

/**
 * Expressions for engines that end a query over a position with decimals or a division by zero,
 * call the length of a text so, and escape nothing in a pattern unless a character is named.
 */
abstract class StrictText extends WideLengthText {
  private final String engine;

  StrictText(
      UnaryOperator<String> quoteName, Optional<? extends StrictText> computing, String engine) {
    super(quoteName, computing);
    this.engine = engine;
  }

  /** How many bytes a file has. */
  abstract String octets(String file);

  /** Refuses what may be divided by zero. */
  final void requireDivisor(Expression divisor) {
    Divisors.require(divisor, engine);
  }

  @Override
  protected final String like(Expression.Like e) {
    return plainLike(e);
  }

  @Override
  protected final String call(Expression.Call e) {
    List<Expression> arguments = e.arguments();
    return switch (e.function()) {
      case SUBSTRING -> {
        Positions.require(arguments, engine);
        yield super.call(e);
      }
      case CHAR_LENGTH -> wide("length(" + write(arguments.getFirst()) + ")");
      case OCTET_LENGTH -> wide(octets(write(arguments.getFirst())));
      case POSITION -> wide(super.call(e));
      case MOD -> {
        requireDivisor(arguments.get(1));
        yield super.call(e);
      }
      case UPPER,
          LOWER,
          TRIM,
          LTRIM,
          RTRIM,
          LPAD,
          RPAD,
          OVERLAY,
          CONCAT_WS,
          ABS,
          ROUND,
          FLOOR,
          CEILING,
          COALESCE,
          NULLIF ->
          super.call(e);
    };
  }
}
