package joiner.expression;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.FieldType.Width;
import joiner.model.Table;

/**
 * Gives every part of an expression its kind, resolves field names and writes implicit steps out.
 * All problems are reported together; a part that is wrong counts as NULL above it, so that one
 * mistake is told once.
 */
final class TypeCheck {
  /** Marks a number whose decimals depend on the engine. */
  private static final int UNKNOWN = -1;

  /**
   * A part with what is known of it.
   *
   * @param width of a whole number
   * @param scale decimals of any number; {@link #UNKNOWN} where engines differ
   */
  private record Typed(Expression tree, Kind kind, Width width, int scale) {
    Typed(Expression tree, Kind kind) {
      this(tree, kind, Width.BITS_32, 0);
    }

    Typed as(Expression other) {
      return new Typed(other, kind, width, scale);
    }
  }

  private final Table table;
  private final Map<String, Field> exact = new LinkedHashMap<>();
  private final Map<String, Field> folded = new LinkedHashMap<>();
  private final LinkedHashSet<String> used = new LinkedHashSet<>();
  private final List<Problem> problems = new ArrayList<>();

  private TypeCheck(Table table) {
    this.table = table;
    for (Field field : table.fields()) {
      exact.put(field.name(), field);
      folded.putIfAbsent(field.name().toLowerCase(Locale.ROOT), field);
    }
  }

  static Checked check(Expression tree, Table table) {
    var check = new TypeCheck(table);
    Typed typed = check.of(tree);
    return check.problems.isEmpty()
        ? new Checked.Sound(typed.tree, typed.kind, List.copyOf(check.used))
        : new Checked.Faulty(check.problems);
  }

  private Typed of(Expression tree) {
    return switch (tree) {
      case Expression.Literal e -> literal(e);
      case Expression.Now e -> new Typed(e, e.kind());
      case Expression.FieldRef e -> field(e);
      case Expression.Not e ->
          new Typed(new Expression.Not(condition(e.operand()), e.span()), Kind.BOOLEAN);
      case Expression.Negate e -> negate(e);
      case Expression.And e ->
          new Typed(new Expression.And(conditions(e.operands()), e.span()), Kind.BOOLEAN);
      case Expression.Or e ->
          new Typed(new Expression.Or(conditions(e.operands()), e.span()), Kind.BOOLEAN);
      case Expression.Compare e -> compare(e);
      case Expression.Compute e -> compute(e);
      case Expression.Shift e -> new Typed(e, e.kind());
      case Expression.StartOfDay e -> new Typed(e, Kind.DATE_TIME);
      case Expression.Fitting e -> of(e.operand());
      case Expression.CodePoints e -> of(e.operand());
      case Expression.Concat e ->
          new Typed(new Expression.Concat(text(e.left()), text(e.right()), e.span()), Kind.TEXT);
      case Expression.Between e -> between(e);
      case Expression.In e -> in(e);
      case Expression.Like e -> like(e);
      case Expression.IsNull e ->
          new Typed(
              new Expression.IsNull(of(e.operand()).tree, e.negated(), e.span()), Kind.BOOLEAN);
      case Expression.IsTruth e ->
          new Typed(
              new Expression.IsTruth(condition(e.operand()), e.truth(), e.negated(), e.span()),
              Kind.BOOLEAN);
      case Expression.Case e -> caseOf(e);
      case Expression.Call e -> call(e);
      case Expression.Extract e -> extract(e);
      case Expression.ToText e -> toText(e);
    };
  }

  private Typed field(Expression.FieldRef e) {
    Field field = exact.get(e.name());
    if (field == null) {
      field = folded.get(e.name().toLowerCase(Locale.ROOT));
    }
    if (field == null) {
      problem(
          e,
          exact.isEmpty()
              ? standsAlone(e.name())
              : "There is no field " + e.name() + " in " + table.label() + suggestion(e.name()));
      return new Typed(e, Kind.NULL);
    }
    used.add(field.name());
    var tree = new Expression.FieldRef(field.name(), e.span());
    Kind kind = Kind.of(field.type());
    return switch (field.type()) {
      case FieldType.WholeNumber t -> new Typed(tree, kind, t.width(), 0);
      case FieldType.Counter t -> new Typed(tree, kind, t.width(), 0);
      case FieldType.Decimal t -> new Typed(tree, kind, Width.BITS_32, t.scale());
      case FieldType.Money t -> new Typed(tree, kind, Width.BITS_32, t.scale());
      case FieldType.AnyNumber t -> new Typed(tree, kind, Width.BITS_32, UNKNOWN);
      default -> new Typed(tree, kind);
    };
  }

  /** A whole number is as wide as it has to be; beyond 64 bits it is a number like any other. */
  private static Typed literal(Expression.Literal e) {
    if (!(e.value() instanceof Value.Num num)) {
      return new Typed(e, e.kind());
    }
    if (e.kind() != Kind.WHOLE) {
      return new Typed(e, e.kind(), Width.BITS_32, Math.max(1, num.number().scale()));
    }
    BigDecimal number = num.number();
    if (number.compareTo(BigDecimal.valueOf(Width.BITS_64.max())) > 0) {
      var plain = new Value.Num(number, false);
      return new Typed(
          new Expression.Literal(plain, Kind.NUMBER, e.span()), Kind.NUMBER, Width.BITS_64, 1);
    }
    boolean small = number.compareTo(BigDecimal.valueOf(Width.BITS_32.max())) <= 0;
    return new Typed(e, Kind.WHOLE, small ? Width.BITS_32 : Width.BITS_64, 0);
  }

  /** A whole result; one of constants alone that cannot be computed would stop every engine. */
  private Typed fitting(Expression tree, Width width) {
    var fitting = new Expression.Fitting(tree, width, tree.span());
    boolean constant =
        !Walk.any(tree, e -> e instanceof Expression.FieldRef || e instanceof Expression.Now);
    if (constant && problems.isEmpty()) {
      try {
        new Evaluator(Clock.systemUTC()).evaluate(fitting, name -> Value.NULL);
      } catch (EvaluationException e) {
        problem(tree, "This cannot be computed: " + e.getMessage() + ".");
      }
    }
    return new Typed(fitting, Kind.WHOLE, width, 0);
  }

  private static Width wider(Width left, Width right) {
    return left.bits() >= right.bits() ? left : right;
  }

  private static int common(int left, int right) {
    return left == right ? left : UNKNOWN;
  }

  private Typed like(Expression.Like e) {
    Expression operand = text(e.operand());
    Expression pattern = text(e.pattern());
    if (e.escape().isPresent()
        && pattern instanceof Expression.Literal literal
        && literal.value() instanceof Value.Text text) {
      try {
        LikePattern.of(text.text(), e.escape());
      } catch (EvaluationException misplaced) {
        problem(
            e.pattern(),
            "The escape character “"
                + e.escape().get()
                + "” stands before nothing it may escape: it goes before %, _ or itself.");
      }
    }
    return new Typed(
        new Expression.Like(operand, pattern, e.escape(), e.negated(), e.span()), Kind.BOOLEAN);
  }

  private Typed toText(Expression.ToText e) {
    Typed operand = of(e.operand());
    boolean engineDecides = operand.kind == Kind.NUMBER && operand.scale == UNKNOWN;
    if (engineDecides || operand.kind == Kind.ZONED || operand.kind == Kind.INTERVAL) {
      problem(
          e,
          operand.kind == Kind.NUMBER
              ? "How many decimals this number is written with differs from engine to engine;"
                  + " compare it as a number."
              : describe(e.operand(), operand.kind)
                  + "; how it is written differs from engine to engine.");
    }
    if (operand.kind == Kind.BOOLEAN) {
      return new Typed(truthAsText(operand.tree, e.span()), Kind.TEXT);
    }
    return new Typed(
        new Expression.ToText(operand.tree, operand.kind, operand.scale, e.span()), Kind.TEXT);
  }

  /** Engines write truth as true, TRUE and 1; spelled out it is one text everywhere. */
  private static Expression truthAsText(Expression truth, Span span) {
    return new Expression.Case(
        Optional.empty(),
        List.of(
            new Expression.When(truth, text("true", span)),
            new Expression.When(new Expression.Not(truth, span), text("false", span))),
        Optional.empty(),
        span);
  }

  private static Expression text(String text, Span span) {
    return new Expression.Literal(new Value.Text(text), Kind.TEXT, span);
  }

  private String suggestion(String name) {
    return Spelling.nearest(name, exact.keySet())
        .map(near -> "; did you mean " + near + "?")
        .orElseGet(() -> "; its fields are " + String.join(", ", exact.keySet()) + ".");
  }

  /** Where there are no fields to name, as in a default, a word is a slip of another sort. */
  private static String standsAlone(String name) {
    String meant =
        switch (name.toLowerCase(Locale.ROOT)) {
          case "today" -> "For the day a row is made write CURRENT_DATE.";
          case "now" -> "For the moment a row is made write CURRENT_TIMESTAMP.";
          case "yes", "on" -> "Write TRUE.";
          case "no", "off" -> "Write FALSE.";
          default -> "A text stands in quotes: '" + name.replace("'", "''") + "'.";
        };
    return "“" + name + "” is no value. " + meant;
  }

  private Expression condition(Expression e) {
    return expect(e, Kind.BOOLEAN, "is joined with AND, OR or NOT, so it must be a condition");
  }

  private List<Expression> conditions(List<Expression> operands) {
    return operands.stream().map(this::condition).toList();
  }

  private Expression text(Expression e) {
    return expect(e, Kind.TEXT, "must be text here; write CAST(… AS VARCHAR) to turn it into text");
  }

  private Expression number(Expression e) {
    Typed typed = of(e);
    if (!typed.kind.isNumeric() && typed.kind != Kind.NULL) {
      problem(e, describe(e, typed.kind) + "; a number is needed here.");
    }
    return typed.tree;
  }

  private Expression expect(Expression e, Kind kind, String because) {
    Typed typed = of(e);
    if (typed.kind != kind && typed.kind != Kind.NULL) {
      problem(e, describe(e, typed.kind) + "; it " + because + ".");
    }
    return typed.tree;
  }

  private Typed negate(Expression.Negate e) {
    Typed operand = of(e.operand());
    if (!operand.kind.isNumeric() && operand.kind != Kind.NULL) {
      problem(e.operand(), describe(e.operand(), operand.kind) + "; only a number has a sign.");
    }
    var tree = new Expression.Negate(operand.tree, e.span());
    return operand.kind == Kind.WHOLE ? fitting(tree, operand.width) : operand.as(tree);
  }

  private Typed compare(Expression.Compare e) {
    Typed left = of(e.left());
    Typed right = of(e.right());
    Kind common = common(e, left, right);
    return new Typed(
        new Expression.Compare(
            e.operator(),
            isOrder(e.operator()) ? inOrder(left, common) : lift(left, common),
            lift(right, common),
            e.span()),
        Kind.BOOLEAN);
  }

  private Typed between(Expression.Between e) {
    Typed operand = of(e.operand());
    Typed low = of(e.low());
    Typed high = of(e.high());
    Kind common = join(common(e, operand, low), common(e, operand, high));
    return new Typed(
        new Expression.Between(
            inOrder(operand, common), lift(low, common), lift(high, common), e.negated(), e.span()),
        Kind.BOOLEAN);
  }

  private static boolean isOrder(Expression.Comparison operator) {
    return operator != Expression.Comparison.EQUAL && operator != Expression.Comparison.NOT_EQUAL;
  }

  private Expression inOrder(Typed typed, Kind kind) {
    Expression lifted = lift(typed, kind);
    return kind == Kind.TEXT ? new Expression.CodePoints(lifted, lifted.span()) : lifted;
  }

  private Typed in(Expression.In e) {
    Typed operand = of(e.operand());
    var options = new ArrayList<Expression>();
    for (Expression option : e.options()) {
      Typed typed = of(option);
      Kind common = common(e, operand, typed);
      if (common != operand.kind && common == Kind.DATE_TIME && operand.kind == Kind.DATE) {
        problem(option, "A date is listed with a date and time; list dates only.");
      }
      options.add(lift(typed, common == Kind.UUID ? common : operand.kind));
    }
    return new Typed(new Expression.In(operand.tree, options, e.negated(), e.span()), Kind.BOOLEAN);
  }

  private Expression lift(Typed typed, Kind to) {
    if (typed.kind == Kind.DATE && to == Kind.DATE_TIME) {
      return new Expression.StartOfDay(typed.tree, typed.tree.span());
    }
    return typed.kind == Kind.TEXT && to == Kind.UUID ? uuid(typed.tree) : typed.tree;
  }

  /** A UUID is written with small letters everywhere, so that it equals itself as a text too. */
  private Expression uuid(Expression e) {
    if (e instanceof Expression.Literal literal && literal.value() instanceof Value.Text text) {
      Optional<Value.Text> small = Value.uuid(text.text());
      if (small.isPresent()) {
        return new Expression.Literal(small.get(), Kind.UUID, e.span());
      }
      problem(e, "“" + text.text() + "” is no UUID; it has 32 hexadecimal digits in five groups.");
    } else {
      problem(e, "A UUID is compared with another or with one in quotes, not with a text.");
    }
    return e;
  }

  /** The kind both sides are compared as; reports what cannot be compared. */
  private Kind common(Expression whole, Typed left, Typed right) {
    if (left.kind == Kind.INTERVAL || right.kind == Kind.INTERVAL) {
      problem(whole, "A length of time is added to a date or subtracted from it, not compared.");
      return Kind.NULL;
    }
    if (left.kind == right.kind
        || left.kind == Kind.NULL
        || right.kind == Kind.NULL
        || (left.kind.isNumeric() && right.kind.isNumeric())
        || uuidWithText(left.kind, right.kind)
        || (dateAndTime(left.kind) && dateAndTime(right.kind))) {
      return join(left.kind, right.kind);
    }
    problem(whole, "Compares " + named(left) + " with " + named(right) + "." + remedy(left, right));
    return Kind.NULL;
  }

  private static boolean uuidWithText(Kind left, Kind right) {
    return (left == Kind.UUID && right == Kind.TEXT) || (left == Kind.TEXT && right == Kind.UUID);
  }

  private static boolean dateAndTime(Kind kind) {
    return kind == Kind.DATE || kind == Kind.DATE_TIME;
  }

  private static Kind join(Kind left, Kind right) {
    if (left == Kind.NULL) {
      return right;
    }
    if (left == right || right == Kind.NULL) {
      return left;
    }
    if (left.isNumeric()) {
      return Kind.NUMBER;
    }
    if (uuidWithText(left, right)) {
      return Kind.UUID;
    }
    return dateAndTime(left) ? Kind.DATE_TIME : left;
  }

  private static String remedy(Typed left, Typed right) {
    Kind wanted = left.tree instanceof Expression.Literal ? right.kind : left.kind;
    boolean quoted = left.kind == Kind.TEXT || right.kind == Kind.TEXT;
    if (quoted && wanted == Kind.DATE) {
      return " Write the date as DATE '2026-03-14'.";
    }
    if (quoted && wanted == Kind.DATE_TIME) {
      return " Write the moment as TIMESTAMP '2026-03-14 18:05'.";
    }
    if (quoted && (wanted == Kind.WHOLE || wanted == Kind.NUMBER)) {
      return " Write the number without quotes.";
    }
    boolean literal =
        left.tree instanceof Expression.Literal || right.tree instanceof Expression.Literal;
    if (literal && wanted == Kind.TEXT) {
      return " Write the text in quotes.";
    }
    if (left.kind == Kind.ZONED || right.kind == Kind.ZONED) {
      return " Use LOCALTIMESTAMP with moments that carry no zone, CURRENT_TIMESTAMP with those that do.";
    }
    return " Compare values of one kind.";
  }

  private static String named(Typed typed) {
    return typed.tree instanceof Expression.FieldRef ref
        ? ref.name() + " (" + typed.kind.words() + ")"
        : typed.kind.words();
  }

  private Typed compute(Expression.Compute e) {
    Typed left = of(e.left());
    Typed right = of(e.right());
    if (right.kind == Kind.INTERVAL || left.kind == Kind.INTERVAL) {
      return shift(e, left, right);
    }
    if ((left.kind.isMoment() || right.kind.isMoment()) && left.kind != Kind.NULL) {
      problem(
          e, "A date moves by a length of time: write INTERVAL '7' DAY instead of a plain number.");
      return new Typed(e, Kind.NULL);
    }
    requireNumber(e.left(), left);
    requireNumber(e.right(), right);
    boolean whole = left.kind == Kind.WHOLE && right.kind == Kind.WHOLE;
    var tree = new Expression.Compute(e.operator(), left.tree, right.tree, whole, e.span());
    return whole
        ? fitting(tree, wider(left.width, right.width))
        : new Typed(tree, Kind.NUMBER, Width.BITS_32, scale(e.operator(), left.scale, right.scale));
  }

  /** ISO/IEC 9075-2, numeric value expression; the scale of a quotient is left to the engine. */
  private static int scale(Expression.Arithmetic operator, int left, int right) {
    if (left == UNKNOWN || right == UNKNOWN) {
      return UNKNOWN;
    }
    return switch (operator) {
      case PLUS, MINUS -> Math.max(left, right);
      case TIMES -> left + right;
      case DIVIDE -> UNKNOWN;
    };
  }

  private void requireNumber(Expression e, Typed typed) {
    if (!typed.kind.isNumeric() && typed.kind != Kind.NULL) {
      String hint = typed.kind == Kind.TEXT ? " Texts are joined with ||." : "";
      problem(e, describe(e, typed.kind) + "; only numbers can be computed with." + hint);
    }
  }

  private Typed shift(Expression.Compute e, Typed left, Typed right) {
    boolean back = e.operator() == Expression.Arithmetic.MINUS;
    if (right.tree instanceof Expression.Literal literal
        && literal.value() instanceof Value.Interval interval
        && left.kind.isMoment()
        && (back || e.operator() == Expression.Arithmetic.PLUS)) {
      boolean subDay = !interval.duration().isZero();
      if (left.kind == Kind.DATE && subDay) {
        problem(e, "A date has no hours; move it by whole days.");
      }
      return new Typed(
          new Expression.Shift(left.tree, interval, back, left.kind, e.span()), left.kind);
    }
    problem(
        e, "A length of time is added to a date or subtracted from it: date + INTERVAL '7' DAY.");
    return new Typed(e, Kind.NULL);
  }

  private Typed caseOf(Expression.Case e) {
    Optional<Typed> operand = e.operand().map(this::of);
    Optional<Typed> before = Optional.empty();
    var whens = new ArrayList<Expression.When>();
    for (Expression.When when : e.whens()) {
      Expression condition;
      if (operand.isPresent()) {
        Typed typed = of(when.condition());
        condition = lift(typed, common(when.condition(), operand.get(), typed));
      } else {
        condition = condition(when.condition());
      }
      Typed result = of(when.result());
      before = Optional.of(result(when.result(), before, result));
      whens.add(new Expression.When(condition, result.tree));
    }
    Optional<Typed> otherwise = e.otherwise().map(this::of);
    if (otherwise.isPresent()) {
      before = Optional.of(result(e.otherwise().get(), before, otherwise.get()));
    }
    return before
        .orElseThrow()
        .as(
            new Expression.Case(
                operand.map(Typed::tree), whens, otherwise.map(Typed::tree), e.span()));
  }

  /** What several branches give together; reports one that is of another kind. */
  private Typed result(Expression e, Optional<Typed> before, Typed now) {
    if (before.isEmpty() || before.get().kind == Kind.NULL) {
      return now;
    }
    Typed earlier = before.get();
    if (now.kind == Kind.NULL) {
      return earlier;
    }
    if (earlier.kind != now.kind && !(earlier.kind.isNumeric() && now.kind.isNumeric())) {
      problem(
          e,
          "The branches differ: one gives "
              + earlier.kind.words()
              + ", this one "
              + now.kind.words()
              + ".");
    }
    return new Typed(
        now.tree,
        join(earlier.kind, now.kind),
        wider(earlier.width, now.width),
        common(earlier.scale, now.scale));
  }

  private Typed call(Expression.Call e) {
    return switch (e.function()) {
      case CHAR_LENGTH -> call(e, texts(e), Kind.WHOLE);
      case POSITION -> call(e, texts(e), Kind.WHOLE);
      case UPPER, LOWER, TRIM -> call(e, texts(e), Kind.TEXT);
      case SUBSTRING -> substring(e);
      case ABS, FLOOR, CEILING -> {
        Typed operand = of(e.arguments().getFirst());
        requireNumber(e.arguments().getFirst(), operand);
        var tree = new Expression.Call(e.function(), List.of(operand.tree), e.span());
        yield operand.kind == Kind.WHOLE
            ? fitting(tree, operand.width)
            : new Typed(
                tree,
                operand.kind,
                operand.width,
                e.function() == Expression.Function.ABS ? operand.scale : 0);
      }
      case MOD -> mod(e);
      case COALESCE, NULLIF -> alike(e);
    };
  }

  private List<Expression> texts(Expression.Call e) {
    return e.arguments().stream().map(this::text).toList();
  }

  private static Typed call(Expression.Call e, List<Expression> arguments, Kind kind) {
    return new Typed(new Expression.Call(e.function(), arguments, e.span()), kind);
  }

  private Typed substring(Expression.Call e) {
    var arguments = new ArrayList<Expression>();
    arguments.add(text(e.arguments().getFirst()));
    e.arguments().stream().skip(1).map(this::number).forEach(arguments::add);
    return call(e, arguments, Kind.TEXT);
  }

  private Typed mod(Expression.Call e) {
    List<Typed> typed = e.arguments().stream().map(this::of).toList();
    for (int i = 0; i < typed.size(); i++) {
      Kind kind = typed.get(i).kind;
      if (kind != Kind.WHOLE && kind != Kind.NULL) {
        Expression argument = e.arguments().get(i);
        problem(argument, describe(argument, kind) + "; a remainder is of whole numbers.");
      }
    }
    Width width = wider(typed.get(0).width, typed.get(1).width);
    return new Typed(
        new Expression.Call(e.function(), typed.stream().map(Typed::tree).toList(), e.span()),
        Kind.WHOLE,
        width,
        0);
  }

  private Typed alike(Expression.Call e) {
    List<Typed> typed = e.arguments().stream().map(this::of).toList();
    Optional<Typed> all = Optional.empty();
    for (int i = 0; i < typed.size(); i++) {
      all = Optional.of(result(e.arguments().get(i), all, typed.get(i)));
    }
    return all.orElseThrow()
        .as(new Expression.Call(e.function(), typed.stream().map(Typed::tree).toList(), e.span()));
  }

  private Typed extract(Expression.Extract e) {
    Typed operand = of(e.operand());
    boolean ofDay = e.part() == Expression.Part.HOUR || e.part() == Expression.Part.MINUTE;
    boolean fits =
        switch (operand.kind) {
          case DATE -> !ofDay;
          case TIME -> ofDay;
          case DATE_TIME, ZONED, NULL -> true;
          case BOOLEAN, WHOLE, NUMBER, TEXT, UUID, INTERVAL -> false;
        };
    if (!fits) {
      problem(e.operand(), describe(e.operand(), operand.kind) + "; it has no " + e.part() + ".");
    }
    return new Typed(
        new Expression.Extract(e.part(), operand.tree, operand.kind, e.span()), Kind.WHOLE);
  }

  private static String describe(Expression e, Kind kind) {
    String subject = e instanceof Expression.FieldRef ref ? ref.name() : "This";
    return subject + " is " + kind.words();
  }

  private void problem(Expression e, String message) {
    problems.add(new Problem(e.span(), message));
  }
}
