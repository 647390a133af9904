package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.expression.ValueType;

/** Expressions for Oracle Database, of trees without truth values. */
final class OracleText extends SqlText {
  private static final String ENGINE = "Oracle";

  /** A text written out takes 4,000 bytes, a character up to four. */
  private static final int LONGEST_TEXT = 1_000;

  OracleText(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  @Override
  protected String literal(Value value) {
    return switch (value) {
      case Value.Text t -> textOf(t.text());
      case Value.Bool b -> b.truth() ? "1" : "0";
      case Value.Time t -> "INTERVAL '" + seconds(t) + "' HOUR TO SECOND";
      case Value.DateTime d -> "TIMESTAMP '" + Evaluator.show(d).replace('T', ' ') + "'";
      case Value.Zoned z ->
          "TIMESTAMP '"
              + Evaluator.show(z)
                  .replace('T', ' ')
                  .replaceFirst("([+-]\\d\\d:\\d\\d|Z)$", " $1")
                  .replace(" Z", " +00:00")
              + "'";
      case Value.Interval i -> throw new InexpressibleException(ENGINE + " needs a moment for it");
      case Value.Bytes b -> "TO_BLOB(HEXTORAW('" + b.hex() + "'))";
      case Value.Date v -> super.literal(v);
      case Value.Null v -> super.literal(v);
      case Value.Num v -> super.literal(v);
    };
  }

  private static String seconds(Value.Time time) {
    String shown = time.time().toString();
    return shown.length() == 5 ? shown + ":00" : shown;
  }

  private String textOf(String text) {
    if (text.isEmpty()) {
      throw new InexpressibleException(ENGINE + " takes an empty text for no value");
    }
    if (text.length() <= LONGEST_TEXT) {
      String quoted = LineBreaks.apart(text(text), " || ", "CHR");
      return LineBreaks.isIn(text) ? "(" + quoted + ")" : quoted;
    }
    var parts = new ArrayList<String>();
    for (int start = 0; start < text.length(); ) {
      int end = Math.min(start + LONGEST_TEXT, text.length());
      end -= Character.isHighSurrogate(text.charAt(end - 1)) && end < text.length() ? 1 : 0;
      String part = text.substring(start, end);
      parts.add("TO_CLOB(" + LineBreaks.apart(text(part), " || ", "CHR") + ")");
      start = end;
    }
    return "(" + String.join(" || ", parts) + ")";
  }

  @Override
  protected String now(Kind kind) {
    return switch (kind) {
      case DATE -> "TRUNC(CURRENT_DATE)";
      case DATE_TIME -> "LOCALTIMESTAMP";
      case TEXT -> "USER";
      case BOOLEAN, WHOLE, NUMBER, TIME, ZONED, UUID, INTERVAL, BYTES, NULL -> "CURRENT_TIMESTAMP";
    };
  }

  @Override
  protected String shift(Expression.Shift e) {
    var period = e.interval().period();
    if (period.toTotalMonths() != 0) {
      throw new InexpressibleException(
          ENGINE + " moves the last day of a month to the last day of another");
    }
    long minutes = e.interval().duration().toMinutes();
    String by =
        minutes != 0
            ? "NUMTODSINTERVAL(" + minutes + ", 'MINUTE')"
            : "NUMTODSINTERVAL(" + period.getDays() + ", 'DAY')";
    return "(" + operand(e.moment()) + (e.back() ? " - " : " + ") + by + ")";
  }

  @Override
  protected String startOfDay(String date) {
    return "CAST(" + date + " AS timestamp)";
  }

  /** A text joined to NULL would be the text. */
  @Override
  protected String concat(Expression.Concat e) {
    var parts = new ArrayList<Expression>();
    flatten(e, parts);
    String joined = parts.stream().map(this::operand).collect(Collectors.joining(" || "));
    String filled =
        parts.stream()
            .filter(part -> !(part instanceof Expression.Literal))
            .map(part -> operand(part) + " IS NOT NULL")
            .collect(Collectors.joining(" AND "));
    return filled.isEmpty()
        ? "(" + joined + ")"
        : "CASE WHEN " + filled + " THEN " + joined + " END";
  }

  private static void flatten(Expression e, List<Expression> parts) {
    if (e instanceof Expression.Concat concat) {
      flatten(concat.left(), parts);
      flatten(concat.right(), parts);
    } else {
      parts.add(e);
    }
  }

  @Override
  protected String compute(Expression.Compute e) {
    return e.operator() == Expression.Arithmetic.DIVIDE && e.whole()
        ? "TRUNC((" + write(e.left()) + ") / (" + write(e.right()) + "))"
        : super.compute(e);
  }

  @Override
  protected String call(Expression.Call e) {
    List<Expression> arguments = e.arguments();
    return switch (e.function()) {
      case OCTET_LENGTH ->
          throw new InexpressibleException(ENGINE + " counts no bytes of a file in a condition");
      case CHAR_LENGTH -> "LENGTH(" + write(arguments.getFirst()) + ")";
      case SUBSTRING -> {
        Positions.require(arguments, ENGINE);
        yield "SUBSTR(" + written(arguments) + ")";
      }
      case POSITION -> "INSTR(" + write(arguments.get(1)) + ", " + write(arguments.get(0)) + ")";
      case MOD -> {
        Divisors.require(arguments.get(1), ENGINE);
        yield super.call(e);
      }
      case CEILING -> "CEIL(" + write(arguments.getFirst()) + ")";
      case COALESCE -> arguments.size() == 1 ? write(arguments.getFirst()) : super.call(e);
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
          NULLIF ->
          super.call(e);
    };
  }

  /** Each text there is comes with what stands before it, and the first such is taken off. */
  @Override
  protected String joined(List<Expression> texts) {
    String between = ((Value.Text) ((Expression.Literal) texts.getFirst()).value()).text();
    String each =
        texts.stream()
            .skip(1)
            .map(
                text ->
                    between.isEmpty()
                        ? operand(text)
                        : "NVL2("
                            + write(text)
                            + ", "
                            + textOf(between)
                            + " || "
                            + operand(text)
                            + ", NULL)")
            .collect(Collectors.joining(" || "));
    int after = between.codePointCount(0, between.length()) + 1;
    return "SUBSTR(" + each + ", " + after + ")";
  }

  /** A difference of dates is a number of days; of moments an interval, which is added up. */
  @Override
  protected String elapsed(Expression.Elapsed e) {
    String between = "(" + operand(e.later()) + " - (" + write(e.earlier()) + "))";
    return e.kind() == Kind.DATE
        ? between
        : "(EXTRACT(DAY FROM "
            + between
            + ") * 86400 + EXTRACT(HOUR FROM "
            + between
            + ") * 3600 + EXTRACT(MINUTE FROM "
            + between
            + ") * 60 + TRUNC(EXTRACT(SECOND FROM "
            + between
            + ")))";
  }

  /** A part of a moment with a zone is the one in UTC. */
  @Override
  protected String extract(Expression.Extract e) {
    String moment =
        e.kind() == Kind.ZONED ? "SYS_EXTRACT_UTC(" + write(e.operand()) + ")" : write(e.operand());
    return e.part() == Expression.Part.ISODOW
        ? "(TRUNC(" + moment + ") - TRUNC(" + moment + ", 'IW') + 1)"
        : "EXTRACT(" + e.part() + " FROM " + write(e.operand()) + ")";
  }

  @Override
  protected String toText(Expression.ToText e) {
    String operand = write(e.operand());
    return switch (e.kind()) {
      case TEXT, UUID, NULL -> operand;
      case WHOLE -> "TO_CHAR(" + operand + ")";
      case NUMBER -> "TO_CHAR(" + operand + ", '" + format(e.scale()) + "')";
      case DATE -> "TO_CHAR(" + operand + ", 'YYYY-MM-DD')";
      case BOOLEAN -> "CASE " + operand + " WHEN 1 THEN 'true' WHEN 0 THEN 'false' END";
      case TIME, DATE_TIME, ZONED, INTERVAL, BYTES ->
          throw new InexpressibleException(
              ENGINE + " writes times with as many decimals as they are kept with");
    };
  }

  private static String format(int scale) {
    if (scale == ValueType.UNKNOWN || scale > 30) {
      throw new InexpressibleException(ENGINE + " writes such numbers with decimals of its own");
    }
    return "FM" + "9".repeat(37 - scale) + "0" + (scale == 0 ? "" : "." + "0".repeat(scale));
  }
}
