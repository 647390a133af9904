package joiner.expression;

import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * Writes an expression as ISO SQL. Engines that spell a part differently override the method of
 * that part. Brackets stand only where they are needed to read the same tree again.
 */
public class SqlText {
  private final UnaryOperator<String> quoteName;

  /** Writes field names through {@code quoteName}. */
  public SqlText(UnaryOperator<String> quoteName) {
    this.quoteName = quoteName;
  }

  /** ISO SQL as Joiner's own language reads it. */
  public static SqlText iso() {
    return new SqlText(
        name ->
            name.matches("[A-Za-z_][A-Za-z0-9_]*") && !Parser.isWord(name)
                ? name
                : "\"" + name.replace("\"", "\"\"") + "\"");
  }

  /** How tightly an expression holds together; greater binds tighter. */
  private enum Binding {
    OR,
    AND,
    NOT,
    PREDICATE,
    SUM,
    PRODUCT,
    SIGN,
    PRIMARY
  }

  /** The expression's text. */
  public final String write(Expression tree) {
    return switch (tree) {
      case Expression.Literal e -> literal(e.value());
      case Expression.Name e -> path(e.path());
      case Expression.FieldRef e -> path(e.to().path());
      case Expression.Now e -> now(e.kind());
      case Expression.Not e -> "NOT " + within(e.operand(), Binding.NOT);
      case Expression.Negate e -> "-" + within(e.operand(), Binding.PRIMARY);
      case Expression.And e -> joined(e.operands(), " AND ", Binding.NOT);
      case Expression.Or e -> joined(e.operands(), " OR ", Binding.AND);
      case Expression.Compare e ->
          operand(e.left()) + " " + e.operator().sql() + " " + operand(e.right());
      case Expression.Compute e -> compute(e);
      case Expression.Shift e -> shift(e);
      case Expression.StartOfDay e -> startOfDay(write(e.date()));
      case Expression.Fitting e -> write(e.operand());
      case Expression.CodePoints e -> codePoints(e.operand());
      case Expression.Concat e -> concat(e);
      case Expression.Between e ->
          operand(e.operand())
              + not(e.negated())
              + " BETWEEN "
              + operand(e.low())
              + " AND "
              + operand(e.high());
      case Expression.In e ->
          operand(e.operand())
              + not(e.negated())
              + " IN ("
              + joined(e.options(), ", ", Binding.OR)
              + ")";
      case Expression.Like e -> like(e);
      case Expression.IsNull e -> operand(e.operand()) + " IS" + not(e.negated()) + " NULL";
      case Expression.IsTruth e -> isTruth(e);
      case Expression.Case e -> caseOf(e);
      case Expression.Call e -> call(e);
      case Expression.Extract e -> extract(e);
      case Expression.Elapsed e -> elapsed(e);
      case Expression.ToText e -> toText(e);
    };
  }

  private String path(List<String> names) {
    return names.stream().map(quoteName).collect(Collectors.joining("."));
  }

  /** A value written out. */
  protected String literal(Value value) {
    return switch (value) {
      case Value.Null n -> "NULL";
      case Value.Text t -> text(t.text());
      case Value.Num n -> number(n);
      case Value.Bool b -> b.truth() ? "TRUE" : "FALSE";
      case Value.Date d -> "DATE '" + d.date() + "'";
      case Value.Time t -> "TIME '" + t.time() + "'";
      case Value.DateTime d -> "TIMESTAMP '" + Evaluator.show(d).replace('T', ' ') + "'";
      case Value.Zoned z ->
          "TIMESTAMP WITH TIME ZONE '" + Evaluator.show(z).replace('T', ' ') + "'";
      case Value.Interval i -> interval(i);
      case Value.Bytes b -> "X'" + b.hex() + "'";
    };
  }

  private static String number(Value.Num num) {
    String plain = num.number().toPlainString();
    return num.whole() || plain.contains(".") ? plain : plain + ".0";
  }

  /** A text in quotes. */
  protected final String text(String text) {
    return "'" + text.replace("'", "''") + "'";
  }

  private static String interval(Value.Interval interval) {
    if (!interval.duration().isZero()) {
      long minutes = interval.duration().toMinutes();
      return minutes % 60 == 0
          ? "INTERVAL '" + minutes / 60 + "' HOUR"
          : "INTERVAL '" + minutes + "' MINUTE";
    }
    var period = interval.period();
    if (period.getDays() != 0 || period.isZero()) {
      return "INTERVAL '" + period.getDays() + "' DAY";
    }
    return period.getMonths() != 0
        ? "INTERVAL '" + period.getMonths() + "' MONTH"
        : "INTERVAL '" + period.getYears() + "' YEAR";
  }

  /** The present date or moment, or who is at work. */
  protected String now(Kind kind) {
    return switch (kind) {
      case DATE -> "CURRENT_DATE";
      case DATE_TIME -> "LOCALTIMESTAMP";
      case TEXT -> "CURRENT_USER";
      case BOOLEAN, WHOLE, NUMBER, TIME, ZONED, UUID, INTERVAL, BYTES, NULL -> "CURRENT_TIMESTAMP";
    };
  }

  /** Arithmetic. */
  protected String compute(Expression.Compute e) {
    boolean product =
        e.operator() == Expression.Arithmetic.TIMES || e.operator() == Expression.Arithmetic.DIVIDE;
    return within(e.left(), product ? Binding.PRODUCT : Binding.SUM)
        + " "
        + e.operator().sql()
        + " "
        + within(e.right(), product ? Binding.SIGN : Binding.PRODUCT);
  }

  /** Two texts joined. */
  protected String concat(Expression.Concat e) {
    return within(e.left(), Binding.SUM) + joins() + within(e.right(), Binding.PRODUCT);
  }

  /** The sign between two texts that are joined. */
  protected String joins() {
    return " || ";
  }

  /** A moment moved by an interval. */
  protected String shift(Expression.Shift e) {
    return within(e.moment(), Binding.SUM) + (e.back() ? " - " : " + ") + literal(e.interval());
  }

  /** A date taken as the start of its day. */
  protected String startOfDay(String date) {
    return date;
  }

  /** operand LIKE pattern. */
  protected String like(Expression.Like e) {
    String escape = e.escape().map(c -> " ESCAPE " + text(c.toString())).orElse("");
    return operand(e.operand()) + not(e.negated()) + " LIKE " + operand(e.pattern()) + escape;
  }

  private String isTruth(Expression.IsTruth e) {
    String truth = e.truth().map(t -> t ? "TRUE" : "FALSE").orElse("UNKNOWN");
    return truthTest(operand(e.operand()), truth, e.negated());
  }

  /** operand IS [NOT] TRUE, FALSE or UNKNOWN. */
  protected String truthTest(String operand, String truth, boolean negated) {
    return operand + " IS" + not(negated) + " " + truth;
  }

  private String caseOf(Expression.Case e) {
    return "CASE"
        + e.operand().map(operand -> " " + write(operand)).orElse("")
        + e.whens().stream()
            .map(when -> " WHEN " + write(when.condition()) + " THEN " + write(when.result()))
            .collect(Collectors.joining())
        + e.otherwise().map(otherwise -> " ELSE " + write(otherwise)).orElse("")
        + " END";
  }

  /** A function. */
  protected String call(Expression.Call e) {
    return switch (e.function()) {
      case SUBSTRING ->
          "SUBSTRING("
              + write(e.arguments().get(0))
              + " FROM "
              + write(e.arguments().get(1))
              + (e.arguments().size() > 2 ? " FOR " + write(e.arguments().get(2)) : "")
              + ")";
      case POSITION ->
          "POSITION(" + operand(e.arguments().get(0)) + " IN " + write(e.arguments().get(1)) + ")";
      case OVERLAY ->
          "OVERLAY("
              + write(e.arguments().get(0))
              + " PLACING "
              + operand(e.arguments().get(1))
              + " FROM "
              + operand(e.arguments().get(2))
              + (e.arguments().size() > 3 ? " FOR " + operand(e.arguments().get(3)) : "")
              + ")";
      case TRIM, LTRIM, RTRIM -> trim(e.function(), e.arguments());
      case CONCAT_WS -> joined(e.arguments());
      case CHAR_LENGTH,
          OCTET_LENGTH,
          UPPER,
          LOWER,
          LPAD,
          RPAD,
          ABS,
          MOD,
          ROUND,
          FLOOR,
          CEILING,
          COALESCE,
          NULLIF ->
          e.function().name() + "(" + written(e.arguments()) + ")";
    };
  }

  /**
   * A text without what stands at its ends.
   *
   * @param arguments the text and, unless it is a blank, the character to be taken off
   */
  protected String trim(Expression.Function ends, List<Expression> arguments) {
    String side =
        switch (ends) {
          case LTRIM -> "LEADING ";
          case RTRIM -> "TRAILING ";
          default -> "";
        };
    if (arguments.size() == 1 && side.isEmpty()) {
      return "TRIM(" + write(arguments.getFirst()) + ")";
    }
    String character = arguments.size() > 1 ? operand(arguments.get(1)) : "' '";
    return "TRIM(" + side + character + " FROM " + operand(arguments.getFirst()) + ")";
  }

  /** Texts with the first of them between, and without those that are empty. */
  protected String joined(List<Expression> texts) {
    return "CONCAT_WS(" + written(texts) + ")";
  }

  /** Expressions with a comma between. */
  protected final String written(List<Expression> expressions) {
    return joined(expressions, ", ", Binding.OR);
  }

  /** Part of a moment. */
  protected String extract(Expression.Extract e) {
    return "EXTRACT(" + e.part() + " FROM " + write(e.operand()) + ")";
  }

  /** How many units lie between two dates or moments. */
  protected String elapsed(Expression.Elapsed e) {
    return "EXTRACT("
        + e.unit()
        + " FROM ("
        + within(e.later(), Binding.SUM)
        + " - "
        + within(e.earlier(), Binding.PRODUCT)
        + ") "
        + e.unit()
        + ")";
  }

  /** A value as text. */
  protected String toText(Expression.ToText e) {
    return "CAST(" + write(e.operand()) + " AS VARCHAR)";
  }

  /** A text that is compared by code points. */
  protected String codePoints(Expression text) {
    return operand(text);
  }

  private String joined(List<Expression> operands, String between, Binding least) {
    return operands.stream()
        .map(operand -> within(operand, least))
        .collect(Collectors.joining(between));
  }

  /** An operand of a predicate, bracketed if it is itself a condition. */
  protected final String operand(Expression e) {
    return within(e, Binding.SUM);
  }

  private String within(Expression e, Binding least) {
    String text = write(e);
    return binding(e).compareTo(least) >= 0 ? text : "(" + text + ")";
  }

  /** The word NOT after a blank, if wanted. */
  protected static String not(boolean negated) {
    return negated ? " NOT" : "";
  }

  private static Binding binding(Expression e) {
    return switch (e) {
      case Expression.Or o -> Binding.OR;
      case Expression.And a -> Binding.AND;
      case Expression.Not n -> Binding.NOT;
      case Expression.Compare c -> Binding.PREDICATE;
      case Expression.Between b -> Binding.PREDICATE;
      case Expression.In i -> Binding.PREDICATE;
      case Expression.Like l -> Binding.PREDICATE;
      case Expression.IsNull i -> Binding.PREDICATE;
      case Expression.IsTruth i -> Binding.PREDICATE;
      case Expression.Concat c -> Binding.SUM;
      case Expression.Shift s -> Binding.SUM;
      case Expression.Compute c ->
          c.operator() == Expression.Arithmetic.PLUS || c.operator() == Expression.Arithmetic.MINUS
              ? Binding.SUM
              : Binding.PRODUCT;
      case Expression.Negate n -> Binding.SIGN;
      case Expression.Literal l ->
          l.value() instanceof Value.Num num && num.number().signum() < 0
              ? Binding.SIGN
              : Binding.PRIMARY;
      case Expression.Name n -> Binding.PRIMARY;
      case Expression.FieldRef f -> Binding.PRIMARY;
      case Expression.Now n -> Binding.PRIMARY;
      case Expression.StartOfDay s -> Binding.PRIMARY;
      case Expression.Fitting f -> binding(f.operand());
      case Expression.CodePoints c -> Binding.SUM;
      case Expression.Case c -> Binding.PRIMARY;
      case Expression.Call c -> Binding.PRIMARY;
      case Expression.Extract x -> Binding.PRIMARY;
      case Expression.Elapsed x -> Binding.PRIMARY;
      case Expression.ToText t -> Binding.PRIMARY;
    };
  }
}
