package joiner.engine;

import java.time.ZoneOffset;
import java.util.function.UnaryOperator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.SqlText;
import joiner.expression.Value;

/** Expressions for MariaDB, where moments with a zone are kept in UTC. */
final class MariaDbText extends SqlText {
  private static final String ENGINE = "MariaDB";

  MariaDbText(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  @Override
  protected String literal(Value value) {
    return switch (value) {
      case Value.Zoned z ->
          super.literal(
              new Value.DateTime(z.at().withOffsetSameInstant(ZoneOffset.UTC).toLocalDateTime()));
      case Value.Null v -> super.literal(v);
      case Value.Text v -> super.literal(v);
      case Value.Num v -> super.literal(v);
      case Value.Bool v -> super.literal(v);
      case Value.Date v -> super.literal(v);
      case Value.Time v -> super.literal(v);
      case Value.DateTime v -> super.literal(v);
      case Value.Interval v -> super.literal(v);
      case Value.Bytes v -> super.literal(v);
    };
  }

  @Override
  protected String now(Kind kind) {
    return switch (kind) {
      case DATE -> "CURRENT_DATE";
      case DATE_TIME -> "LOCALTIMESTAMP(6)";
      case TEXT -> "CURRENT_USER()";
      case BOOLEAN, WHOLE, NUMBER, TIME, ZONED, UUID, INTERVAL, BYTES, NULL -> "UTC_TIMESTAMP(6)";
    };
  }

  @Override
  protected String shift(Expression.Shift e) {
    return "(" + super.shift(e) + ")";
  }

  @Override
  protected String startOfDay(String date) {
    return "CAST(" + date + " AS datetime)";
  }

  /** Joining has another sign in its usual mode. */
  @Override
  protected String concat(Expression.Concat e) {
    return "CONCAT(" + write(e.left()) + ", " + write(e.right()) + ")";
  }

  /** Whether the backslash escapes depends on the mode of whoever inserts a row. */
  @Override
  protected String like(Expression.Like e) {
    boolean plain =
        e.pattern() instanceof Expression.Literal literal
            && literal.value() instanceof Value.Text text
            && text.text().indexOf('\\') < 0;
    if (!plain && e.escape().isEmpty()) {
      throw new InexpressibleException(
          ENGINE + " takes a backslash in a pattern for an escape; name another with ESCAPE");
    }
    return super.like(e);
  }

  /**
   * A quotient of whole numbers is cut off here by DIV; of decimals it would keep four decimals.
   */
  @Override
  protected String compute(Expression.Compute e) {
    if (e.operator() != Expression.Arithmetic.DIVIDE) {
      return super.compute(e);
    }
    Divisors.require(e.right(), ENGINE);
    return e.whole()
        ? "(" + write(e.left()) + ") DIV (" + write(e.right()) + ")"
        : "CAST(" + write(e.left()) + " AS decimal(65, 30)) / (" + write(e.right()) + ")";
  }

  @Override
  protected String call(Expression.Call e) {
    return switch (e.function()) {
      case MOD -> {
        Divisors.require(e.arguments().get(1), ENGINE);
        yield super.call(e);
      }
      case SUBSTRING -> {
        Positions.require(e.arguments(), ENGINE);
        yield super.call(e);
      }
      case CHAR_LENGTH,
          OCTET_LENGTH,
          UPPER,
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
          ROUND,
          FLOOR,
          CEILING,
          COALESCE,
          NULLIF ->
          super.call(e);
    };
  }

  @Override
  protected String extract(Expression.Extract e) {
    return e.part() == Expression.Part.ISODOW
        ? "(WEEKDAY(" + write(e.operand()) + ") + 1)"
        : super.extract(e);
  }

  @Override
  protected String elapsed(Expression.Elapsed e) {
    return e.kind() == Kind.DATE
        ? "DATEDIFF(" + write(e.later()) + ", " + write(e.earlier()) + ")"
        : "TIMESTAMPDIFF(SECOND, " + write(e.earlier()) + ", " + write(e.later()) + ")";
  }

  @Override
  protected String toText(Expression.ToText e) {
    return switch (e.kind()) {
      // Else it has the collation of whoever makes the table, which does not go with its columns'.
      case TEXT, WHOLE, NUMBER, DATE, UUID, NULL ->
          "CAST("
              + write(e.operand())
              + " AS char CHARACTER SET utf8mb4) COLLATE "
              + MariaDbDialect.COLLATION;
      case BOOLEAN, TIME, DATE_TIME, ZONED, INTERVAL, BYTES ->
          throw new InexpressibleException(
              ENGINE + " writes times with as many decimals as they are kept with");
    };
  }

  /** The text of a default as it is found, whose quoted texts have escapes with a backslash. */
  static String unescaped(String sql) {
    var plain = new StringBuilder();
    boolean quoted = false;
    for (int i = 0; i < sql.length(); i++) {
      char c = sql.charAt(i);
      quoted ^= c == '\'';
      if (quoted && c == '\\' && i + 1 < sql.length()) {
        char escaped = sql.charAt(++i);
        plain.append(meant(escaped));
      } else {
        plain.append(c);
      }
    }
    return plain.toString();
  }

  private static String meant(char escaped) {
    return switch (escaped) {
      case 'n' -> "\n";
      case 'r' -> "\r";
      case 't' -> "\t";
      case '0' -> "\0";
      case 'Z' -> "\u001a";
      case '\'' -> "''";
      default -> String.valueOf(escaped);
    };
  }
}
