package joiner.engine;

import java.math.BigDecimal;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.expression.Width;

/** Expressions for DuckDB. Its checks take the clock as a function only. */
final class DuckDbText extends StrictText {
  private static final String ENGINE = "DuckDB";
  private static final int MOST_DIGITS = 38;

  DuckDbText(UnaryOperator<String> quoteName) {
    this(quoteName, Optional.of(new DuckDbText(quoteName, Optional.empty())));
  }

  private DuckDbText(UnaryOperator<String> quoteName, Optional<DuckDbText> computing) {
    super(quoteName, computing, ENGINE);
  }

  @Override
  protected String now(Kind kind) {
    return switch (kind) {
      case DATE -> "current_date()";
      case DATE_TIME -> "current_localtimestamp()";
      case TEXT -> "CURRENT_USER";
      case BOOLEAN, WHOLE, NUMBER, TIME, ZONED, UUID, INTERVAL, BYTES, NULL -> "now()";
    };
  }

  @Override
  protected String literal(Value value) {
    return value instanceof Value.Bytes bytes
        ? "from_hex('" + bytes.hex() + "')"
        : super.literal(value);
  }

  /**
   * A quotient is a floating-point number unless both are whole; by zero it is no error. A number
   * written out has 32 bits elsewhere; here it takes the width of its partner.
   */
  @Override
  String computed(Expression.Compute e) {
    boolean divides = e.operator() == Expression.Arithmetic.DIVIDE;
    boolean narrow =
        isLiteral(e.left()) && isNarrow(e.right()) || isLiteral(e.right()) && isNarrow(e.left());
    if (divides) {
      requireDivisor(e.right());
    }
    if (!divides && !narrow) {
      return super.computed(e);
    }
    String operator = divides && e.whole() ? "//" : e.operator().sql();
    return operand(e.left(), narrow) + " " + operator + " " + operand(e.right(), narrow);
  }

  private String operand(Expression e, boolean with32Bits) {
    return with32Bits && isLiteral(e) ? "CAST(" + write(e) + " AS integer)" : "(" + write(e) + ")";
  }

  private static boolean isLiteral(Expression e) {
    return switch (e) {
      case Expression.Literal literal ->
          literal.value() instanceof Value.Num num
              && num.whole()
              && num.number().abs().compareTo(BigDecimal.valueOf(Integer.MAX_VALUE)) <= 0;
      case Expression.Negate negate -> isLiteral(negate.operand());
      case Expression.Fitting fitting -> isLiteral(fitting.operand());
      default -> false;
    };
  }

  private static boolean isNarrow(Expression e) {
    return e.reads().stream()
        .anyMatch(to -> to.type().kind() == Kind.WHOLE && to.type().width() == Width.BITS_16);
  }

  /** A number that has nothing but decimals would be written without its zero. */
  @Override
  protected String toText(Expression.ToText e) {
    boolean decimals = e.kind() == Kind.NUMBER && e.scale() > 0 && e.scale() < MOST_DIGITS;
    return decimals
        ? "CAST(CAST("
            + write(e.operand())
            + " AS decimal("
            + MOST_DIGITS
            + ", "
            + e.scale()
            + ")) AS VARCHAR)"
        : super.toText(e);
  }

  @Override
  String octets(String file) {
    return "octet_length(" + file + ")";
  }

  @Override
  protected String trim(Expression.Function ends, List<Expression> arguments) {
    String character = arguments.size() > 1 ? write(arguments.get(1)) : "' '";
    return ends.name().toLowerCase(Locale.ROOT)
        + "("
        + write(arguments.getFirst())
        + ", "
        + character
        + ")";
  }

  @Override
  String days(String later, String earlier) {
    return wide("date_diff('day', " + earlier + ", " + later + ")");
  }

  @Override
  String seconds(String later, String earlier) {
    return "date_sub('second', " + earlier + ", " + later + ")";
  }
}
