package joiner.engine;

import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.LikePattern;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.expression.ValueType;

/** Expressions for SQL Server, of trees without truth values. */
final class SqlServerText extends SqlText {
  private static final String ENGINE = "SQL Server";

  /** As many characters as a text can have. */
  private static final int MOST_CHARACTERS = 1_073_741_823;

  /** What DATEPART calls the first day of a week is a setting; a Monday is a Monday. */
  private static final String MONDAY = "CAST('2001-01-01' AS date)";

  SqlServerText(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  @Override
  protected String literal(Value value) {
    return switch (value) {
      case Value.Text t when LineBreaks.isIn(t.text()) ->
          "(N" + LineBreaks.apart(text(t.text()), " + N", "NCHAR") + ")";
      case Value.Text t -> "N" + text(t.text());
      case Value.Bool b -> b.truth() ? "1" : "0";
      case Value.Date d -> "CAST(" + text(d.date().toString()) + " AS date)";
      case Value.Time t -> "CAST(" + text(t.time().toString()) + " AS time)";
      case Value.DateTime d -> "CAST(" + text(Evaluator.show(d)) + " AS datetime2)";
      case Value.Zoned z -> "CAST(" + text(Evaluator.show(z)) + " AS datetimeoffset)";
      case Value.Interval i -> throw new InexpressibleException(ENGINE + " has no lengths of time");
      case Value.Bytes b -> "0x" + b.hex();
      case Value.Null v -> super.literal(v);
      case Value.Num v -> super.literal(v);
    };
  }

  @Override
  protected String now(Kind kind) {
    return switch (kind) {
      case DATE -> "CAST(SYSDATETIME() AS date)";
      case DATE_TIME -> "SYSDATETIME()";
      case TEXT -> "CURRENT_USER";
      case BOOLEAN, WHOLE, NUMBER, TIME, ZONED, UUID, INTERVAL, BYTES, NULL ->
          "SYSDATETIMEOFFSET()";
    };
  }

  @Override
  protected String shift(Expression.Shift e) {
    String sign = e.back() ? "-" : "";
    String moment = write(e.moment());
    long minutes = e.interval().duration().toMinutes();
    if (minutes != 0) {
      return "DATEADD(minute, " + sign + minutes + ", " + moment + ")";
    }
    long months = e.interval().period().toTotalMonths();
    return months != 0
        ? "DATEADD(month, " + sign + months + ", " + moment + ")"
        : "DATEADD(day, " + sign + e.interval().period().getDays() + ", " + moment + ")";
  }

  @Override
  protected String startOfDay(String date) {
    return "CAST(" + date + " AS datetime2)";
  }

  @Override
  protected String joins() {
    return " + ";
  }

  /** Texts are put in order by code points through the collation of their columns. */
  @Override
  protected String codePoints(Expression text) {
    return text.reads().isEmpty()
        ? "(" + write(text) + ") COLLATE " + SqlServerDialect.COLLATION
        : super.codePoints(text);
  }

  /** A quotient of decimals would keep as few as six decimals. */
  @Override
  protected String compute(Expression.Compute e) {
    return e.operator() == Expression.Arithmetic.DIVIDE && !e.whole()
        ? "CAST(" + write(e.left()) + " AS float) / (" + write(e.right()) + ")"
        : super.compute(e);
  }

  /** A bracket begins a set of characters here, so it has to be escaped. */
  @Override
  protected String like(Expression.Like e) {
    if (e.pattern() instanceof Expression.Literal literal
        && literal.value() instanceof Value.Text pattern) {
      String own = pattern(LikePattern.of(pattern.text(), e.escape()));
      String escape = own.indexOf('\\') >= 0 ? " ESCAPE N'\\'" : "";
      return operand(e.operand())
          + not(e.negated())
          + " LIKE "
          + literal(new Value.Text(own))
          + escape;
    }
    throw new InexpressibleException(
        ENGINE + " takes brackets in a pattern for sets of characters; write the pattern out");
  }

  private static String pattern(LikePattern pattern) {
    var own = new StringBuilder();
    for (LikePattern.Part part : pattern.parts()) {
      switch (part) {
        case LikePattern.Part.AnyText any -> own.append('%');
        case LikePattern.Part.AnyOne one -> own.append('_');
        case LikePattern.Part.Exactly exactly ->
            own.append("%_[\\".indexOf(exactly.codePoint()) >= 0 ? "\\" : "")
                .appendCodePoint(exactly.codePoint());
      }
    }
    return own.toString();
  }

  @Override
  protected String call(Expression.Call e) {
    List<Expression> arguments = e.arguments();
    return switch (e.function()) {
      case CHAR_LENGTH -> length(write(arguments.getFirst()));
      case OCTET_LENGTH -> "DATALENGTH(" + write(arguments.getFirst()) + ")";
      case SUBSTRING ->
          "SUBSTRING("
              + written(arguments)
              + (arguments.size() < 3 ? ", " + MOST_CHARACTERS + ")" : ")");
      case POSITION -> position(arguments.get(0), arguments.get(1));
      case MOD -> "((" + write(arguments.get(0)) + ") % (" + write(arguments.get(1)) + "))";
      case COALESCE -> arguments.size() == 1 ? write(arguments.getFirst()) : super.call(e);
      case LPAD, RPAD -> padded(e.function(), arguments);
      case UPPER,
          LOWER,
          TRIM,
          LTRIM,
          RTRIM,
          CONCAT_WS,
          OVERLAY,
          ABS,
          ROUND,
          FLOOR,
          CEILING,
          NULLIF ->
          super.call(e);
    };
  }

  /** Before 2022 one end only is freed of blanks alone. */
  @Override
  protected String trim(Expression.Function ends, List<Expression> arguments) {
    if (ends == Expression.Function.TRIM) {
      return super.trim(ends, arguments);
    }
    if (arguments.size() > 1) {
      throw new InexpressibleException(
          ENGINE + " takes nothing but blanks off one end before 2022");
    }
    return ends.name() + "(" + write(arguments.getFirst()) + ")";
  }

  private String padded(Expression.Function ends, List<Expression> arguments) {
    String text = write(arguments.getFirst());
    String most = write(arguments.get(1));
    String missing = most + " - " + length(text);
    String filled = "REPLICATE(" + write(arguments.get(2)) + ", " + missing + ")";
    String whole =
        ends == Expression.Function.LPAD
            ? filled + " + (" + text + ")"
            : "(" + text + ") + " + filled;
    return "CASE WHEN "
        + length(text)
        + " < "
        + most
        + " THEN "
        + whole
        + " ELSE SUBSTRING("
        + text
        + ", 1, "
        + most
        + ") END";
  }

  /** What DATEDIFF counts are the borders of units that lie between; so small ones are taken. */
  @Override
  protected String elapsed(Expression.Elapsed e) {
    String between = write(e.earlier()) + ", " + write(e.later()) + ")";
    return e.kind() == Kind.DATE
        ? "DATEDIFF(day, " + between
        : "(DATEDIFF_BIG(microsecond, " + between + " / 1000000)";
  }

  /** LEN takes no notice of blanks at the end. */
  static String length(String text) {
    return "CAST(DATALENGTH(" + text + ") / 2 AS int)";
  }

  private String position(Expression part, Expression text) {
    boolean filled =
        part instanceof Expression.Literal literal
            && literal.value() instanceof Value.Text t
            && !t.text().isEmpty();
    if (!filled) {
      throw new InexpressibleException(ENGINE + " finds an empty text nowhere");
    }
    return "CHARINDEX(" + write(part) + ", " + write(text) + ")";
  }

  @Override
  protected String extract(Expression.Extract e) {
    String moment =
        e.kind() == Kind.ZONED
            ? "SWITCHOFFSET(" + write(e.operand()) + ", '+00:00')"
            : write(e.operand());
    return e.part() == Expression.Part.ISODOW
        ? "((DATEDIFF(day, " + MONDAY + ", " + moment + ") % 7 + 7) % 7 + 1)"
        : "DATEPART(" + e.part().name().toLowerCase(Locale.ROOT) + ", " + moment + ")";
  }

  @Override
  protected String toText(Expression.ToText e) {
    String operand = write(e.operand());
    return switch (e.kind()) {
      case TEXT, NULL -> "CAST(" + operand + " AS nvarchar(max))";
      case WHOLE -> "CAST(" + operand + " AS nvarchar(40))";
      case NUMBER -> "CAST(" + decimal(operand, e.scale()) + " AS nvarchar(40))";
      case DATE -> "CONVERT(nvarchar(10), " + operand + ", 23)";
      case UUID -> "LOWER(CAST(" + operand + " AS nvarchar(36)))";
      case BOOLEAN -> "CASE " + operand + " WHEN 1 THEN N'true' WHEN 0 THEN N'false' END";
      case TIME, DATE_TIME, ZONED, INTERVAL, BYTES ->
          throw new InexpressibleException(
              ENGINE + " writes times with as many decimals as they are kept with");
    };
  }

  private static String decimal(String number, int scale) {
    if (scale == ValueType.UNKNOWN || scale > 38) {
      throw new InexpressibleException(ENGINE + " writes such numbers with decimals of its own");
    }
    return "CAST(" + number + " AS decimal(38, " + scale + "))";
  }
}
