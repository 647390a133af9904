package joiner.engine;

import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.LikePattern;
import joiner.expression.SqlText;
import joiner.expression.Value;

/** Expressions for SQLite, where dates and moments are texts. */
final class SqliteText extends SqlText {
  private static final DateTimeFormatter MOMENT =
      DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss");
  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss");

  SqliteText(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  @Override
  protected String literal(Value value) {
    return switch (value) {
      case Value.Date d -> text(plain(d));
      case Value.Time t -> text(plain(t));
      case Value.DateTime d -> text(plain(d));
      case Value.Zoned z -> text(plain(z));
      case Value.Null n -> super.literal(n);
      case Value.Text t -> super.literal(t);
      case Value.Num n -> super.literal(n);
      case Value.Bool b -> super.literal(b);
      case Value.Bytes b -> super.literal(b);
      case Value.Interval i -> throw new InexpressibleException("SQLite has no lengths of time");
    };
  }

  static String plain(Value.Date date) {
    return date.date().toString();
  }

  static String plain(Value.Time time) {
    return TIME.format(time.time());
  }

  static String plain(Value.DateTime moment) {
    return MOMENT.format(moment.at());
  }

  static String plain(Value.Zoned moment) {
    return MOMENT.format(moment.at().withOffsetSameInstant(ZoneOffset.UTC)) + "Z";
  }

  @Override
  protected String now(Kind kind) {
    return switch (kind) {
      case DATE -> "CURRENT_DATE";
      case DATE_TIME ->
          throw new InexpressibleException("SQLite knows the present moment in UTC only");
      case TEXT -> throw new InexpressibleException("SQLite has no users");
      case BOOLEAN, WHOLE, NUMBER, TIME, ZONED, UUID, INTERVAL, BYTES, NULL ->
          "(CURRENT_TIMESTAMP || 'Z')";
    };
  }

  @Override
  protected String shift(Expression.Shift e) {
    var period = e.interval().period();
    if (period.toTotalMonths() != 0) {
      throw new InexpressibleException("SQLite moves a date past the end of a shorter month");
    }
    long amount =
        e.interval().duration().isZero() ? period.getDays() : e.interval().duration().toMinutes();
    String unit = e.interval().duration().isZero() ? " days" : " minutes";
    String by = text((e.back() ? "-" : "+") + amount + unit);
    String moment = write(e.moment());
    return switch (e.kind()) {
      case DATE -> "date(" + moment + ", " + by + ")";
      case DATE_TIME -> "datetime(" + moment + ", " + by + ")";
      case BOOLEAN, WHOLE, NUMBER, TEXT, TIME, ZONED, UUID, INTERVAL, BYTES, NULL ->
          "(datetime(" + moment + ", " + by + ") || 'Z')";
    };
  }

  @Override
  protected String startOfDay(String date) {
    return "(" + date + " || ' 00:00:00')";
  }

  /** LIKE of SQLite does not tell case; GLOB does. */
  @Override
  protected String like(Expression.Like e) {
    if (e.pattern() instanceof Expression.Literal literal
        && literal.value() instanceof Value.Text pattern) {
      String glob = glob(LikePattern.of(pattern.text(), e.escape()));
      return operand(e.operand()) + not(e.negated()) + " GLOB " + text(glob);
    }
    throw new InexpressibleException(
        "SQLite compares with LIKE without regard to case unless the pattern is written out");
  }

  private static String glob(LikePattern pattern) {
    var glob = new StringBuilder();
    for (LikePattern.Part part : pattern.parts()) {
      switch (part) {
        case LikePattern.Part.AnyText any -> glob.append('*');
        case LikePattern.Part.AnyOne one -> glob.append('?');
        case LikePattern.Part.Exactly exactly -> {
          boolean special = "*?[".indexOf(exactly.codePoint()) >= 0;
          glob.append(special ? "[" : "")
              .appendCodePoint(exactly.codePoint())
              .append(special ? "]" : "");
        }
      }
    }
    return glob.toString();
  }

  @Override
  protected String truthTest(String operand, String truth, boolean negated) {
    return operand + " IS" + not(negated) + (truth.equals("UNKNOWN") ? " NULL" : " " + truth);
  }

  /**
   * Numbers with decimals may be stored as whole ones, whose quotient SQLite would cut off; and a
   * division by zero would give NULL.
   */
  @Override
  protected String compute(Expression.Compute e) {
    if (e.operator() == Expression.Arithmetic.DIVIDE) {
      Divisors.require(e.right(), "SQLite");
    }
    if (e.operator() == Expression.Arithmetic.DIVIDE && !e.whole()) {
      return "CAST(" + write(e.left()) + " AS real) / " + operandOfProduct(e.right());
    }
    return super.compute(e);
  }

  private String operandOfProduct(Expression e) {
    return "(" + write(e) + ")";
  }

  @Override
  protected String call(Expression.Call e) {
    List<Expression> arguments = e.arguments();
    return switch (e.function()) {
      case OCTET_LENGTH -> "octet_length(" + write(arguments.getFirst()) + ")";
      case CHAR_LENGTH -> "length(" + write(arguments.getFirst()) + ")";
      case SUBSTRING -> substring(arguments);
      case POSITION -> "instr(" + write(arguments.get(1)) + ", " + write(arguments.get(0)) + ")";
      case MOD -> {
        Divisors.require(arguments.get(1), "SQLite");
        yield "((" + write(arguments.get(0)) + ") % (" + write(arguments.get(1)) + "))";
      }
      case CEILING -> "ceil(" + write(arguments.getFirst()) + ")";
      case COALESCE -> arguments.size() == 1 ? write(arguments.getFirst()) : super.call(e);
      case LPAD, RPAD -> padded(e.function(), arguments);
      case CONCAT_WS -> "concat_ws(" + written(arguments) + ")";
      case UPPER, LOWER, TRIM, LTRIM, RTRIM, OVERLAY, ABS, ROUND, FLOOR, NULLIF ->
          e.function().name().toLowerCase(Locale.ROOT) + "(" + written(arguments) + ")";
    };
  }

  /** Positions before the text count as empty in SQL; SQLite would count them from the end. */
  private String substring(List<Expression> arguments) {
    Positions.require(arguments, "SQLite");
    return "substr(" + written(arguments) + ")";
  }

  /** Nothing fills up here: what may be missing stands there, and as much is taken as is. */
  private String padded(Expression.Function ends, List<Expression> arguments) {
    String text = write(arguments.getFirst());
    String length = write(arguments.get(1));
    int most = ((Value.Num) ((Expression.Literal) arguments.get(1)).value()).number().intValue();
    String filling = ((Value.Text) ((Expression.Literal) arguments.get(2)).value()).text();
    String filled =
        "substr(" + text(filling.repeat(most)) + ", 1, " + length + " - length(" + text + "))";
    String whole =
        ends == Expression.Function.LPAD
            ? filled + " || (" + text + ")"
            : "(" + text + ") || " + filled;
    return "CASE WHEN length("
        + text
        + ") < "
        + length
        + " THEN "
        + whole
        + " ELSE substr("
        + text
        + ", 1, "
        + length
        + ") END";
  }

  @Override
  protected String elapsed(Expression.Elapsed e) {
    String later = write(e.later());
    String earlier = write(e.earlier());
    return e.kind() == Kind.DATE
        ? "CAST(julianday(" + later + ") - julianday(" + earlier + ") AS integer)"
        : "(strftime('%s', " + later + ") - strftime('%s', " + earlier + "))";
  }

  @Override
  protected String extract(Expression.Extract e) {
    String code =
        switch (e.part()) {
          case YEAR -> "%Y";
          case MONTH -> "%m";
          case DAY -> "%d";
          case ISODOW -> "%w";
          case HOUR -> "%H";
          case MINUTE -> "%M";
        };
    String part = "strftime('" + code + "', " + write(e.operand()) + ")";
    return e.part() == Expression.Part.ISODOW
        ? "((" + part + " + 6) % 7 + 1)"
        : "CAST(" + part + " AS integer)";
  }

  /** Decimals are written out, for SQLite keeps numbers without their scale. */
  @Override
  protected String toText(Expression.ToText e) {
    String operand = write(e.operand());
    return e.kind() == Kind.NUMBER
        ? "CASE WHEN ("
            + operand
            + ") IS NOT NULL THEN printf('%."
            + e.scale()
            + "f', "
            + operand
            + ") END"
        : "CAST(" + operand + " AS text)";
  }
}
