package joiner.expression;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.Period;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.time.temporal.Temporal;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Computes expressions on one row at a time with SQL's three-valued logic: NULL as a truth value is
 * unknown (ISO/IEC 9075-2, boolean value expression).
 */
public final class Evaluator {
  private final Clock clock;

  /**
   * Evaluates at the clock's present moment, which stays the same for all that this evaluator
   * computes, as it does within a statement; the clock's zone is the zone of dates and of moments
   * that carry none.
   */
  public Evaluator(Clock clock) {
    this.clock = Clock.fixed(clock.instant(), clock.getZone());
  }

  /**
   * The value of a type-checked tree on one row.
   *
   * @param row what is read → value
   * @throws EvaluationException if the row's values cannot be computed with
   */
  public Value evaluate(Expression tree, Function<Reference, Value> row) {
    return switch (tree) {
      case Expression.Literal e -> e.value();
      case Expression.Name e ->
          throw new IllegalArgumentException("the name " + e.text() + " was not looked up");
      case Expression.FieldRef e -> row.apply(e.to());
      case Expression.Now e -> now(e.kind());
      case Expression.Not e -> not(evaluate(e.operand(), row));
      case Expression.Negate e -> negate(evaluate(e.operand(), row));
      case Expression.And e -> fold(e.operands(), false, row);
      case Expression.Or e -> fold(e.operands(), true, row);
      case Expression.Compare e ->
          compare(e.operator(), evaluate(e.left(), row), evaluate(e.right(), row));
      case Expression.Compute e ->
          compute(e.operator(), evaluate(e.left(), row), evaluate(e.right(), row));
      case Expression.Shift e -> shift(evaluate(e.moment(), row), e.interval(), e.back());
      case Expression.StartOfDay e ->
          evaluate(e.date(), row) instanceof Value.Date date
              ? new Value.DateTime(date.date().atStartOfDay())
              : Value.NULL;
      case Expression.Fitting e -> fitting(evaluate(e.operand(), row), e.width());
      case Expression.CodePoints e -> evaluate(e.operand(), row);
      case Expression.Concat e -> concat(evaluate(e.left(), row), evaluate(e.right(), row));
      case Expression.Between e -> between(e, row);
      case Expression.In e -> in(e, row);
      case Expression.Like e -> like(e, row);
      case Expression.IsNull e ->
          Value.of((evaluate(e.operand(), row) instanceof Value.Null) != e.negated());
      case Expression.IsTruth e -> isTruth(e, evaluate(e.operand(), row));
      case Expression.Case e -> caseOf(e, row);
      case Expression.Call e -> call(e, row);
      case Expression.Extract e -> extract(e.part(), evaluate(e.operand(), row));
      case Expression.Elapsed e ->
          elapsed(e.unit(), evaluate(e.later(), row), evaluate(e.earlier(), row));
      case Expression.ToText e -> toText(e, evaluate(e.operand(), row));
    };
  }

  private Value now(Kind kind) {
    return switch (kind) {
      case DATE -> new Value.Date(LocalDate.now(clock));
      case DATE_TIME -> new Value.DateTime(LocalDateTime.now(clock));
      case TEXT -> new Value.Text(System.getProperty("user.name", ""));
      case BOOLEAN, WHOLE, NUMBER, TIME, ZONED, UUID, INTERVAL, BYTES, NULL ->
          new Value.Zoned(OffsetDateTime.now(clock));
    };
  }

  private static Value not(Value operand) {
    return operand instanceof Value.Bool bool ? Value.of(!bool.truth()) : Value.NULL;
  }

  private static Value negate(Value operand) {
    return operand instanceof Value.Num num
        ? new Value.Num(num.number().negate(), num.whole())
        : Value.NULL;
  }

  /** AND (deciding = false) or OR (deciding = true): the deciding value wins, then unknown. */
  private Value fold(List<Expression> operands, boolean deciding, Function<Reference, Value> row) {
    boolean unknown = false;
    for (Expression operand : operands) {
      if (!(evaluate(operand, row) instanceof Value.Bool bool)) {
        unknown = true;
      } else if (bool.truth() == deciding) {
        return bool;
      }
    }
    return unknown ? Value.NULL : Value.of(!deciding);
  }

  private static Value compare(Expression.Comparison operator, Value left, Value right) {
    if (left instanceof Value.Null || right instanceof Value.Null) {
      return Value.NULL;
    }
    return Value.of(operator.holds(order(left, right)));
  }

  /** Order of two values of one kind. Texts compare by code point, whatever the locale. */
  public static int order(Value left, Value right) {
    return switch (left) {
      case Value.Num l -> l.number().compareTo(((Value.Num) right).number());
      case Value.Text l -> compareCodePoints(l.text(), ((Value.Text) right).text());
      case Value.Bool l -> Boolean.compare(l.truth(), ((Value.Bool) right).truth());
      case Value.Date l -> l.date().compareTo(((Value.Date) right).date());
      case Value.Time l -> l.time().compareTo(((Value.Time) right).time());
      case Value.DateTime l -> l.at().compareTo(((Value.DateTime) right).at());
      case Value.Zoned l -> l.at().toInstant().compareTo(((Value.Zoned) right).at().toInstant());
      case Value.Bytes l -> l.base64().compareTo(((Value.Bytes) right).base64());
      case Value.Interval l -> throw new IllegalArgumentException("intervals have no order");
      case Value.Null l -> throw new IllegalArgumentException("NULL has no order");
    };
  }

  private static int compareCodePoints(String left, String right) {
    int length = Math.min(left.length(), right.length());
    for (int i = 0; i < length; i++) {
      if (left.charAt(i) != right.charAt(i)) {
        return Integer.compare(left.codePointAt(i), right.codePointAt(i));
      }
    }
    return Integer.compare(left.length(), right.length());
  }

  private static Value compute(Expression.Arithmetic operator, Value left, Value right) {
    if (!(left instanceof Value.Num l) || !(right instanceof Value.Num r)) {
      return Value.NULL;
    }
    boolean whole = l.whole() && r.whole();
    return switch (operator) {
      case PLUS -> new Value.Num(l.number().add(r.number()), whole);
      case MINUS -> new Value.Num(l.number().subtract(r.number()), whole);
      case TIMES -> new Value.Num(l.number().multiply(r.number()), whole);
      case DIVIDE -> divide(l, r, whole);
    };
  }

  private static Value fitting(Value value, Width width) {
    if (value instanceof Value.Num num
        && (num.number().compareTo(BigDecimal.valueOf(width.min())) < 0
            || num.number().compareTo(BigDecimal.valueOf(width.max())) > 0)) {
      throw new EvaluationException("it leaves the whole numbers of " + width.bits() + " bits");
    }
    return value;
  }

  private static Value divide(Value.Num left, Value.Num right, boolean whole) {
    if (right.number().signum() == 0) {
      throw new EvaluationException("it divides by zero");
    }
    return whole
        ? new Value.Num(left.number().divideToIntegralValue(right.number()), true)
        : new Value.Num(left.number().divide(right.number(), MathContext.DECIMAL128), false);
  }

  private static Value shift(Value moment, Value.Interval interval, boolean back) {
    try {
      return shifted(
          moment,
          back ? interval.period().negated() : interval.period(),
          back ? interval.duration().negated() : interval.duration());
    } catch (DateTimeException | ArithmeticException e) {
      throw new EvaluationException("it leaves the calendar");
    }
  }

  private static Value shifted(Value moment, Period period, Duration duration) {
    return switch (moment) {
      case Value.Date date -> new Value.Date(date.date().plus(period));
      case Value.DateTime at -> new Value.DateTime(at.at().plus(period).plus(duration));
      case Value.Zoned at -> new Value.Zoned(at.at().plus(period).plus(duration));
      case Value.Null n -> n;
      case Value.Text t -> Value.NULL;
      case Value.Num t -> Value.NULL;
      case Value.Bool t -> Value.NULL;
      case Value.Time t -> Value.NULL;
      case Value.Bytes t -> Value.NULL;
      case Value.Interval t -> Value.NULL;
    };
  }

  private static Value concat(Value left, Value right) {
    return left instanceof Value.Text l && right instanceof Value.Text r
        ? new Value.Text(l.text() + r.text())
        : Value.NULL;
  }

  private Value between(Expression.Between e, Function<Reference, Value> row) {
    Value operand = evaluate(e.operand(), row);
    Value fromLow = compare(Expression.Comparison.AT_LEAST, operand, evaluate(e.low(), row));
    Value toHigh = compare(Expression.Comparison.AT_MOST, operand, evaluate(e.high(), row));
    Value inside = and(fromLow, toHigh);
    return e.negated() ? not(inside) : inside;
  }

  private static Value and(Value left, Value right) {
    if (left.equals(Value.FALSE) || right.equals(Value.FALSE)) {
      return Value.FALSE;
    }
    return left.equals(Value.TRUE) && right.equals(Value.TRUE) ? Value.TRUE : Value.NULL;
  }

  private Value in(Expression.In e, Function<Reference, Value> row) {
    Value operand = evaluate(e.operand(), row);
    Value found = Value.FALSE;
    for (Expression option : e.options()) {
      Value equal = compare(Expression.Comparison.EQUAL, operand, evaluate(option, row));
      if (equal.equals(Value.TRUE)) {
        found = Value.TRUE;
        break;
      }
      if (equal instanceof Value.Null) {
        found = Value.NULL;
      }
    }
    return e.negated() ? not(found) : found;
  }

  private Value like(Expression.Like e, Function<Reference, Value> row) {
    if (!(evaluate(e.operand(), row) instanceof Value.Text text)
        || !(evaluate(e.pattern(), row) instanceof Value.Text pattern)) {
      return Value.NULL;
    }
    boolean matches = LikePattern.of(pattern.text(), e.escape()).matches(text.text());
    return Value.of(matches != e.negated());
  }

  private static Value isTruth(Expression.IsTruth e, Value operand) {
    boolean same =
        e.truth()
            .map(truth -> operand.equals(Value.of(truth)))
            .orElse(operand instanceof Value.Null);
    return Value.of(same != e.negated());
  }

  private Value caseOf(Expression.Case e, Function<Reference, Value> row) {
    Optional<Value> operand = e.operand().map(o -> evaluate(o, row));
    for (Expression.When when : e.whens()) {
      Value condition = evaluate(when.condition(), row);
      Value holds =
          operand.map(o -> compare(Expression.Comparison.EQUAL, o, condition)).orElse(condition);
      if (holds.equals(Value.TRUE)) {
        return evaluate(when.result(), row);
      }
    }
    return e.otherwise().map(o -> evaluate(o, row)).orElse(Value.NULL);
  }

  private Value call(Expression.Call e, Function<Reference, Value> row) {
    if (e.function() == Expression.Function.COALESCE) {
      return coalesce(e.arguments(), row);
    }
    List<Value> arguments = e.arguments().stream().map(a -> evaluate(a, row)).toList();
    if (e.function() == Expression.Function.CONCAT_WS) {
      return joined(arguments);
    }
    if (e.function() == Expression.Function.NULLIF) {
      boolean same =
          compare(Expression.Comparison.EQUAL, arguments.get(0), arguments.get(1))
              .equals(Value.TRUE);
      return same ? Value.NULL : arguments.get(0);
    }
    return arguments.contains(Value.NULL) ? Value.NULL : apply(e.function(), arguments);
  }

  private Value coalesce(List<Expression> arguments, Function<Reference, Value> row) {
    for (Expression argument : arguments) {
      Value value = evaluate(argument, row);
      if (!(value instanceof Value.Null)) {
        return value;
      }
    }
    return Value.NULL;
  }

  private static Value apply(Expression.Function function, List<Value> arguments) {
    return switch (function) {
      case CHAR_LENGTH -> Value.whole(text(arguments, 0).codePoints().count());
      case OCTET_LENGTH -> Value.whole(((Value.Bytes) arguments.getFirst()).count());
      case UPPER -> new Value.Text(text(arguments, 0).toUpperCase(java.util.Locale.ROOT));
      case LOWER -> new Value.Text(text(arguments, 0).toLowerCase(java.util.Locale.ROOT));
      case TRIM -> trim(arguments, true, true);
      case LTRIM -> trim(arguments, true, false);
      case RTRIM -> trim(arguments, false, true);
      case LPAD -> padded(arguments, true);
      case RPAD -> padded(arguments, false);
      case SUBSTRING -> substring(arguments);
      case POSITION -> position(text(arguments, 0), text(arguments, 1));
      case ABS -> new Value.Num(number(arguments, 0).number().abs(), number(arguments, 0).whole());
      case MOD -> mod(number(arguments, 0), number(arguments, 1));
      case ROUND ->
          new Value.Num(
              number(arguments, 0)
                  .number()
                  .setScale(number(arguments, 1).number().intValue(), RoundingMode.HALF_UP),
              false);
      case FLOOR -> round(number(arguments, 0), RoundingMode.FLOOR);
      case CEILING -> round(number(arguments, 0), RoundingMode.CEILING);
      case COALESCE, NULLIF, CONCAT_WS, OVERLAY ->
          throw new IllegalArgumentException(function + " takes its arguments unevaluated");
    };
  }

  private static Value position(String part, String whole) {
    int index = whole.indexOf(part);
    return Value.whole(index < 0 ? 0 : whole.codePointCount(0, index) + 1L);
  }

  private static Value mod(Value.Num left, Value.Num right) {
    if (right.number().signum() == 0) {
      throw new EvaluationException("it divides by zero");
    }
    return new Value.Num(left.number().remainder(right.number()), true);
  }

  private static Value round(Value.Num num, RoundingMode mode) {
    return new Value.Num(num.number().setScale(0, mode), num.whole());
  }

  private static Value substring(List<Value> arguments) {
    int[] points = text(arguments, 0).codePoints().toArray();
    long from = number(arguments, 1).number().longValue();
    long end =
        arguments.size() > 2
            ? from + number(arguments, 2).number().longValue()
            : Math.max(from, points.length + 1L);
    if (end < from) {
      throw new EvaluationException("SUBSTRING has a negative length");
    }
    int start = (int) Math.clamp(from - 1, 0, points.length);
    int stop = (int) Math.clamp(end - 1, start, points.length);
    return new Value.Text(new String(points, start, stop - start));
  }

  /** A text without a character, a blank unless another is told, at one end or both. */
  private static Value trim(List<Value> arguments, boolean atStart, boolean atEnd) {
    int[] points = text(arguments, 0).codePoints().toArray();
    int off = arguments.size() > 1 ? text(arguments, 1).codePointAt(0) : ' ';
    int start = 0;
    int end = points.length;
    while (atStart && start < end && points[start] == off) {
      start++;
    }
    while (atEnd && end > start && points[end - 1] == off) {
      end--;
    }
    return new Value.Text(new String(points, start, end - start));
  }

  /** A text of just that length: filled up at its start or its end, or cut off at its end. */
  private static Value padded(List<Value> arguments, boolean atStart) {
    String text = text(arguments, 0);
    int length = number(arguments, 1).number().intValueExact();
    int missing = length - text.codePointCount(0, text.length());
    if (missing <= 0) {
      return new Value.Text(text.substring(0, text.offsetByCodePoints(0, length)));
    }
    String filling = text(arguments, 2).repeat(missing);
    return new Value.Text(atStart ? filling + text : text + filling);
  }

  /** Texts with the first of them between; what is empty is left out with its separator. */
  private static Value joined(List<Value> texts) {
    return new Value.Text(
        texts.stream()
            .skip(1)
            .filter(text -> !(text instanceof Value.Null))
            .map(text -> ((Value.Text) text).text())
            .collect(Collectors.joining(text(texts, 0))));
  }

  /** What is begun of a unit does not count, on either side of zero. */
  private static Value elapsed(Expression.Unit unit, Value later, Value earlier) {
    Temporal from = temporal(earlier);
    Temporal to = temporal(later);
    if (from == null || to == null) {
      return Value.NULL;
    }
    boolean days = from instanceof LocalDate;
    return Value.whole(
        days
            ? ChronoUnit.DAYS.between(from, to)
            : ChronoUnit.SECONDS.between(from, to) / unit.seconds());
  }

  private static @Nullable Temporal temporal(Value moment) {
    return switch (moment) {
      case Value.Date date -> date.date();
      case Value.DateTime at -> at.at();
      case Value.Zoned at -> at.at();
      case Value.Null t -> null;
      case Value.Text t -> null;
      case Value.Num t -> null;
      case Value.Bool t -> null;
      case Value.Time t -> null;
      case Value.Bytes t -> null;
      case Value.Interval t -> null;
    };
  }

  private static String text(List<Value> arguments, int index) {
    return ((Value.Text) arguments.get(index)).text();
  }

  private static Value.Num number(List<Value> arguments, int index) {
    return (Value.Num) arguments.get(index);
  }

  private static Value extract(Expression.Part part, Value operand) {
    var field =
        switch (part) {
          case YEAR -> java.time.temporal.ChronoField.YEAR;
          case MONTH -> java.time.temporal.ChronoField.MONTH_OF_YEAR;
          case DAY -> java.time.temporal.ChronoField.DAY_OF_MONTH;
          case ISODOW -> java.time.temporal.ChronoField.DAY_OF_WEEK;
          case HOUR -> java.time.temporal.ChronoField.HOUR_OF_DAY;
          case MINUTE -> java.time.temporal.ChronoField.MINUTE_OF_HOUR;
        };
    return switch (operand) {
      case Value.Date date -> Value.whole(date.date().get(field));
      case Value.Time time -> Value.whole(time.time().get(field));
      case Value.DateTime at -> Value.whole(at.at().get(field));
      case Value.Zoned at -> Value.whole(at.at().withOffsetSameInstant(ZoneOffset.UTC).get(field));
      case Value.Null n -> n;
      case Value.Text t -> Value.NULL;
      case Value.Num t -> Value.NULL;
      case Value.Bool t -> Value.NULL;
      case Value.Bytes t -> Value.NULL;
      case Value.Interval t -> Value.NULL;
    };
  }

  /** As engines write it: a blank before the time of day, seconds always, decimals as declared. */
  private static Value toText(Expression.ToText e, Value operand) {
    return switch (operand) {
      case Value.Null n -> n;
      case Value.Num n when e.kind() == Kind.NUMBER ->
          new Value.Text(n.number().setScale(e.scale(), RoundingMode.UNNECESSARY).toPlainString());
      case Value.Time t -> new Value.Text(DateTimeFormatter.ISO_LOCAL_TIME.format(t.time()));
      case Value.DateTime d -> new Value.Text(seconds(d.at()).replace('T', ' '));
      case Value.Text t -> t;
      case Value.Num n -> new Value.Text(show(n));
      case Value.Bool b -> new Value.Text(show(b));
      case Value.Date d -> new Value.Text(show(d));
      case Value.Zoned z -> new Value.Text(show(z));
      case Value.Bytes b -> new Value.Text(show(b));
      case Value.Interval i -> new Value.Text(show(i));
    };
  }

  /** A value as people and files read it; NULL is the empty text. */
  public static String show(Value value) {
    return switch (value) {
      case Value.Null n -> "";
      case Value.Text t -> t.text();
      case Value.Num n -> plain(n.number());
      case Value.Bool b -> String.valueOf(b.truth());
      case Value.Date d -> d.date().toString();
      case Value.Time t -> t.time().toString();
      case Value.DateTime d -> seconds(d.at());
      case Value.Zoned z -> DateTimeFormatter.ISO_OFFSET_DATE_TIME.format(z.at());
      case Value.Bytes b -> b.base64();
      case Value.Interval i ->
          i.duration().isZero() ? i.period().toString() : i.duration().toString();
    };
  }

  private static String plain(BigDecimal number) {
    return number.toPlainString();
  }

  private static String seconds(LocalDateTime at) {
    return DateTimeFormatter.ISO_LOCAL_DATE_TIME.format(
        at.getNano() == 0 ? at.truncatedTo(ChronoUnit.SECONDS) : at);
  }
}
