package joiner.expression;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.model.Field;
import joiner.model.Table;

/**
 * Gives every part of an expression its kind, resolves field names and writes implicit steps out.
 * All problems are reported together; a part that is wrong counts as NULL above it, so that one
 * mistake is told once.
 */
final class TypeCheck {
  private record Typed(Expression tree, Kind kind) {}

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
      case Expression.Literal e -> new Typed(e, e.kind());
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
      case Expression.Concat e ->
          new Typed(new Expression.Concat(text(e.left()), text(e.right()), e.span()), Kind.TEXT);
      case Expression.Between e -> between(e);
      case Expression.In e -> in(e);
      case Expression.Like e ->
          new Typed(
              new Expression.Like(
                  text(e.operand()), text(e.pattern()), e.escape(), e.negated(), e.span()),
              Kind.BOOLEAN);
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
      case Expression.ToText e ->
          new Typed(new Expression.ToText(of(e.operand()).tree, e.span()), Kind.TEXT);
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
    return new Typed(new Expression.FieldRef(field.name(), e.span()), Kind.of(field.type()));
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
    return new Typed(new Expression.Negate(operand.tree, e.span()), operand.kind);
  }

  private Typed compare(Expression.Compare e) {
    Typed left = of(e.left());
    Typed right = of(e.right());
    Kind common = common(e, left, right);
    return new Typed(
        new Expression.Compare(e.operator(), lift(left, common), lift(right, common), e.span()),
        Kind.BOOLEAN);
  }

  private Typed between(Expression.Between e) {
    Typed operand = of(e.operand());
    Typed low = of(e.low());
    Typed high = of(e.high());
    Kind common = join(common(e, operand, low), common(e, operand, high));
    return new Typed(
        new Expression.Between(
            lift(operand, common), lift(low, common), lift(high, common), e.negated(), e.span()),
        Kind.BOOLEAN);
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
      options.add(lift(typed, operand.kind));
    }
    return new Typed(new Expression.In(operand.tree, options, e.negated(), e.span()), Kind.BOOLEAN);
  }

  private static Expression lift(Typed typed, Kind to) {
    return typed.kind == Kind.DATE && to == Kind.DATE_TIME
        ? new Expression.StartOfDay(typed.tree, typed.tree.span())
        : typed.tree;
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
    return new Typed(
        new Expression.Compute(e.operator(), left.tree, right.tree, whole, e.span()),
        whole ? Kind.WHOLE : Kind.NUMBER);
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
    Kind kind = Kind.NULL;
    var whens = new ArrayList<Expression.When>();
    for (Expression.When when : e.whens()) {
      Expression condition;
      if (operand.isPresent()) {
        Typed typed = of(when.condition());
        common(when.condition(), operand.get(), typed);
        condition = typed.tree;
      } else {
        condition = condition(when.condition());
      }
      Typed result = of(when.result());
      kind = result(when.result(), kind, result.kind);
      whens.add(new Expression.When(condition, result.tree));
    }
    Optional<Typed> otherwise = e.otherwise().map(this::of);
    if (otherwise.isPresent()) {
      kind = result(e.otherwise().get(), kind, otherwise.get().kind);
    }
    return new Typed(
        new Expression.Case(operand.map(Typed::tree), whens, otherwise.map(Typed::tree), e.span()),
        kind);
  }

  private Kind result(Expression e, Kind before, Kind now) {
    boolean fits =
        before == Kind.NULL
            || now == Kind.NULL
            || before == now
            || (before.isNumeric() && now.isNumeric());
    if (!fits) {
      problem(
          e,
          "The branches differ: one gives " + before.words() + ", this one " + now.words() + ".");
    }
    return join(before, now);
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
        yield call(e, List.of(operand.tree), operand.kind);
      }
      case MOD -> call(e, e.arguments().stream().map(this::number).toList(), Kind.WHOLE);
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

  private Typed alike(Expression.Call e) {
    List<Typed> typed = e.arguments().stream().map(this::of).toList();
    Kind kind = Kind.NULL;
    for (int i = 0; i < typed.size(); i++) {
      kind = result(e.arguments().get(i), kind, typed.get(i).kind);
    }
    return call(e, typed.stream().map(Typed::tree).toList(), kind);
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
      problem(e, describe(e.operand(), operand.kind) + "; it has no " + e.part() + ".");
    }
    return new Typed(new Expression.Extract(e.part(), operand.tree, e.span()), Kind.WHOLE);
  }

  private static String describe(Expression e, Kind kind) {
    String subject = e instanceof Expression.FieldRef ref ? ref.name() : "This";
    return subject + " is " + kind.words();
  }

  private void problem(Expression e, String message) {
    problems.add(new Problem(e.span(), message));
  }
}
