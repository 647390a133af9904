package joiner.expression;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Gives every part of an expression its kind, resolves field names and writes implicit steps out.
 * All problems are reported together; a part that is wrong counts as NULL above it, so that one
 * mistake is told once.
 */
final class TypeCheck {
  /** Of so many names all are told to somebody who looks for one. */
  private static final int MOST_NAMED = 30;

  /** A part with what is known of its values. */
  private record Typed(Expression tree, ValueType type) {
    Typed(Expression tree, Kind kind) {
      this(tree, ValueType.of(kind));
    }

    Kind kind() {
      return type.kind();
    }

    Typed as(Expression other) {
      return new Typed(other, type);
    }
  }

  /** More decimals no number keeps. */
  private static final int MOST_DECIMALS = 20;

  /** No text is filled up to more characters. */
  private static final int LONGEST_PADDED = 1_000;

  private static final BigDecimal LONGEST_TEXT = BigDecimal.valueOf(1_000_000);

  private final Scope scope;
  private final List<Problem> problems = new ArrayList<>();

  private TypeCheck(Scope scope) {
    this.scope = scope;
  }

  static Checked check(Expression tree, Scope scope) {
    var check = new TypeCheck(scope);
    Typed typed = check.of(tree);
    return check.problems.isEmpty()
        ? new Checked.Sound(typed.tree, typed.type)
        : new Checked.Faulty(check.problems);
  }

  private Typed of(Expression tree) {
    return switch (tree) {
      case Expression.Literal e -> literal(e);
      case Expression.Now e -> new Typed(e, e.kind());
      case Expression.Name e -> field(e);
      case Expression.FieldRef e -> new Typed(e, e.to().type());
      case Expression.Not e ->
          new Typed(new Expression.Not(condition(e.operand()), e.place()), Kind.BOOLEAN);
      case Expression.Negate e -> negate(e);
      case Expression.And e ->
          new Typed(new Expression.And(conditions(e.operands()), e.place()), Kind.BOOLEAN);
      case Expression.Or e ->
          new Typed(new Expression.Or(conditions(e.operands()), e.place()), Kind.BOOLEAN);
      case Expression.Compare e -> compare(e);
      case Expression.Compute e -> compute(e);
      case Expression.Shift e -> new Typed(e, e.kind());
      case Expression.StartOfDay e -> new Typed(e, Kind.DATE_TIME);
      case Expression.Fitting e -> of(e.operand());
      case Expression.CodePoints e -> of(e.operand());
      case Expression.Concat e ->
          new Typed(new Expression.Concat(text(e.left()), text(e.right()), e.place()), Kind.TEXT);
      case Expression.Between e -> between(e);
      case Expression.In e -> in(e);
      case Expression.Like e -> like(e);
      case Expression.IsNull e ->
          new Typed(
              new Expression.IsNull(of(e.operand()).tree, e.negated(), e.place()), Kind.BOOLEAN);
      case Expression.IsTruth e ->
          new Typed(
              new Expression.IsTruth(condition(e.operand()), e.truth(), e.negated(), e.place()),
              Kind.BOOLEAN);
      case Expression.Case e -> caseOf(e);
      case Expression.Call e -> call(e);
      case Expression.Extract e -> extract(e);
      case Expression.Elapsed e -> elapsed(e);
      case Expression.ToText e -> toText(e);
    };
  }

  private Typed field(Expression.Name e) {
    Optional<Reference> found = scope.find(e.path());
    if (found.isEmpty()) {
      problem(e, scope.names().isEmpty() ? standsAlone(e.text()) : unknown(scope, e.path()));
      return new Typed(e, Kind.NULL);
    }
    return new Typed(new Expression.FieldRef(found.get(), e.place()), found.get().type());
  }

  /** Names the first step of a path that leads nowhere. */
  private static String unknown(Scope scope, List<String> path) {
    String name = path.getFirst();
    if (path.size() == 1) {
      return scope
          .against(name)
          .orElseGet(
              () ->
                  "There is no field "
                      + name
                      + " in "
                      + scope.label()
                      + suggestion(name, "its fields are", scope.names()));
    }
    Optional<Scope> next = scope.over(name);
    if (next.isPresent()) {
      return unknown(next.get(), path.subList(1, path.size()));
    }
    String nowhere = name + " leads to no other row from " + scope.label();
    return scope.ways().isEmpty()
        ? nowhere + "; nothing does."
        : nowhere + suggestion(name, "these do:", scope.ways());
  }

  /** A whole number is as wide as it has to be; beyond 64 bits it is a number like any other. */
  private static Typed literal(Expression.Literal e) {
    if (!(e.value() instanceof Value.Num num)) {
      return new Typed(e, e.kind());
    }
    BigDecimal number = num.number();
    if (e.kind() != Kind.WHOLE) {
      return new Typed(e, ValueType.number(Math.max(1, number.scale())));
    }
    if (number.compareTo(BigDecimal.valueOf(Width.BITS_64.max())) > 0) {
      var plain = new Value.Num(number, false);
      return new Typed(new Expression.Literal(plain, Kind.NUMBER, e.place()), ValueType.number(1));
    }
    boolean small = number.compareTo(BigDecimal.valueOf(Width.BITS_32.max())) <= 0;
    return new Typed(e, ValueType.whole(small ? Width.BITS_32 : Width.BITS_64));
  }

  /** A whole result; one of constants alone that cannot be computed would stop every engine. */
  private Typed fitting(Expression tree, Width width) {
    var fitting = new Expression.Fitting(tree, width, tree.place());
    boolean constant =
        !Walk.any(tree, e -> e instanceof Expression.FieldRef || e instanceof Expression.Now);
    if (constant && problems.isEmpty()) {
      try {
        new Evaluator(Clock.systemUTC()).evaluate(fitting, reference -> Value.NULL);
      } catch (EvaluationException e) {
        problem(tree, "This cannot be computed: " + e.getMessage() + ".");
      }
    }
    return new Typed(fitting, ValueType.whole(width));
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
        new Expression.Like(operand, pattern, e.escape(), e.negated(), e.place()), Kind.BOOLEAN);
  }

  private Typed toText(Expression.ToText e) {
    Typed operand = of(e.operand());
    boolean engineDecides =
        operand.kind() == Kind.NUMBER && operand.type.scale() == ValueType.UNKNOWN;
    boolean differs =
        engineDecides
            || operand.kind() == Kind.ZONED
            || operand.kind() == Kind.INTERVAL
            || operand.kind() == Kind.BYTES;
    if (differs) {
      problem(
          e,
          operand.kind() == Kind.NUMBER
              ? "How many decimals this number is written with differs from engine to engine;"
                  + " compare it as a number."
              : describe(e.operand(), operand.kind())
                  + "; how it is written differs from engine to engine.");
    }
    if (operand.kind() == Kind.BOOLEAN) {
      return new Typed(truthAsText(operand.tree, e.place()), Kind.TEXT);
    }
    return new Typed(
        new Expression.ToText(operand.tree, operand.kind(), operand.type.scale(), e.place()),
        Kind.TEXT);
  }

  /** Engines write truth as true, TRUE and 1; spelled out it is one text everywhere. */
  private static Expression truthAsText(Expression truth, Place place) {
    return new Expression.Case(
        Optional.empty(),
        List.of(
            new Expression.When(truth, text("true", place)),
            new Expression.When(new Expression.Not(truth, place), text("false", place))),
        Optional.empty(),
        place);
  }

  private static Expression text(String text, Place place) {
    return new Expression.Literal(new Value.Text(text), Kind.TEXT, place);
  }

  private static String suggestion(String name, String those, Collection<String> names) {
    return Spelling.nearest(name, names)
        .map(near -> "; did you mean " + near + "?")
        .orElseGet(
            () ->
                names.size() > MOST_NAMED
                    ? "."
                    : "; " + those + " " + String.join(", ", names) + ".");
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
    if (!typed.kind().isNumeric() && typed.kind() != Kind.NULL) {
      problem(e, describe(e, typed.kind()) + "; a number is needed here.");
    }
    return typed.tree;
  }

  private Expression expect(Expression e, Kind kind, String because) {
    Typed typed = of(e);
    if (typed.kind() != kind && typed.kind() != Kind.NULL) {
      problem(e, describe(e, typed.kind()) + "; it " + because + ".");
    }
    return typed.tree;
  }

  private Typed negate(Expression.Negate e) {
    Typed operand = of(e.operand());
    if (!operand.kind().isNumeric() && operand.kind() != Kind.NULL) {
      problem(e.operand(), describe(e.operand(), operand.kind()) + "; only a number has a sign.");
    }
    var tree = new Expression.Negate(operand.tree, e.place());
    return operand.kind() == Kind.WHOLE ? fitting(tree, operand.type.width()) : operand.as(tree);
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
            e.place()),
        Kind.BOOLEAN);
  }

  private Typed between(Expression.Between e) {
    Typed operand = of(e.operand());
    Typed low = of(e.low());
    Typed high = of(e.high());
    Kind common = common(e, operand, low).joinedWith(common(e, operand, high));
    return new Typed(
        new Expression.Between(
            inOrder(operand, common),
            lift(low, common),
            lift(high, common),
            e.negated(),
            e.place()),
        Kind.BOOLEAN);
  }

  private static boolean isOrder(Expression.Comparison operator) {
    return operator != Expression.Comparison.EQUAL && operator != Expression.Comparison.NOT_EQUAL;
  }

  private Expression inOrder(Typed typed, Kind kind) {
    Expression lifted = lift(typed, kind);
    return kind == Kind.TEXT ? new Expression.CodePoints(lifted, lifted.place()) : lifted;
  }

  private Typed in(Expression.In e) {
    Typed operand = of(e.operand());
    var options = new ArrayList<Expression>();
    for (Expression option : e.options()) {
      Typed typed = of(option);
      Kind common = common(e, operand, typed);
      if (common != operand.kind() && common == Kind.DATE_TIME && operand.kind() == Kind.DATE) {
        problem(option, "A date is listed with a date and time; list dates only.");
      }
      options.add(lift(typed, common == Kind.UUID ? common : operand.kind()));
    }
    return new Typed(
        new Expression.In(operand.tree, options, e.negated(), e.place()), Kind.BOOLEAN);
  }

  private Expression lift(Typed typed, Kind to) {
    if (typed.kind() == Kind.DATE && to == Kind.DATE_TIME) {
      return new Expression.StartOfDay(typed.tree, typed.tree.place());
    }
    return typed.kind() == Kind.TEXT && to == Kind.UUID ? uuid(typed.tree) : typed.tree;
  }

  /** A UUID is written with small letters everywhere, so that it equals itself as a text too. */
  private Expression uuid(Expression e) {
    if (e instanceof Expression.Literal literal && literal.value() instanceof Value.Text text) {
      Optional<Value.Text> small = Value.uuid(text.text());
      if (small.isPresent()) {
        return new Expression.Literal(small.get(), Kind.UUID, e.place());
      }
      problem(e, "“" + text.text() + "” is no UUID; it has 32 hexadecimal digits in five groups.");
    } else {
      problem(e, "A UUID is compared with another or with one in quotes, not with a text.");
    }
    return e;
  }

  /** The kind both sides are compared as; reports what cannot be compared. */
  private Kind common(Expression whole, Typed left, Typed right) {
    if (left.kind() == Kind.INTERVAL || right.kind() == Kind.INTERVAL) {
      problem(whole, "A length of time is added to a date or subtracted from it, not compared.");
      return Kind.NULL;
    }
    if (left.kind() == Kind.BYTES || right.kind() == Kind.BYTES) {
      problem(whole, "Files are not compared; ask whether there is one, or for its OCTET_LENGTH.");
      return Kind.NULL;
    }
    if (left.kind() == right.kind()
        || left.kind() == Kind.NULL
        || right.kind() == Kind.NULL
        || (left.kind().isNumeric() && right.kind().isNumeric())
        || Kind.isUuidWithText(left.kind(), right.kind())
        || (left.kind().isDateOrTime() && right.kind().isDateOrTime())) {
      return left.kind().joinedWith(right.kind());
    }
    problem(whole, "Compares " + named(left) + " with " + named(right) + "." + remedy(left, right));
    return Kind.NULL;
  }

  private static String remedy(Typed left, Typed right) {
    Kind wanted = left.tree instanceof Expression.Literal ? right.kind() : left.kind();
    boolean quoted = left.kind() == Kind.TEXT || right.kind() == Kind.TEXT;
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
    if (left.kind() == Kind.ZONED || right.kind() == Kind.ZONED) {
      return " Use LOCALTIMESTAMP with moments that carry no zone, CURRENT_TIMESTAMP with those that do.";
    }
    return " Compare values of one kind.";
  }

  private static String named(Typed typed) {
    return typed.tree instanceof Expression.FieldRef ref
        ? ref.to().name() + " (" + typed.kind().words() + ")"
        : typed.kind().words();
  }

  private Typed compute(Expression.Compute e) {
    Typed left = of(e.left());
    Typed right = of(e.right());
    if (right.kind() == Kind.INTERVAL || left.kind() == Kind.INTERVAL) {
      return shift(e, left, right);
    }
    if (left.kind().isMoment() && right.kind().isMoment()) {
      problem(
          e,
          "What lies between two dates is told in a unit: write EXTRACT(DAY FROM ("
              + SqlText.iso().write(e)
              + ") DAY).");
      return new Typed(e, Kind.NULL);
    }
    if ((left.kind().isMoment() || right.kind().isMoment()) && left.kind() != Kind.NULL) {
      problem(
          e, "A date moves by a length of time: write INTERVAL '7' DAY instead of a plain number.");
      return new Typed(e, Kind.NULL);
    }
    requireNumber(e.left(), left);
    requireNumber(e.right(), right);
    boolean whole = left.kind() == Kind.WHOLE && right.kind() == Kind.WHOLE;
    var tree = new Expression.Compute(e.operator(), left.tree, right.tree, whole, e.place());
    return whole
        ? fitting(tree, left.type.width().orWider(right.type.width()))
        : new Typed(tree, ValueType.computed(e.operator(), left.type, right.type));
  }

  private void requireNumber(Expression e, Typed typed) {
    if (!typed.kind().isNumeric() && typed.kind() != Kind.NULL) {
      String hint = typed.kind() == Kind.TEXT ? " Texts are joined with ||." : "";
      problem(e, describe(e, typed.kind()) + "; only numbers can be computed with." + hint);
    }
  }

  private Typed shift(Expression.Compute e, Typed left, Typed right) {
    boolean back = e.operator() == Expression.Arithmetic.MINUS;
    if (right.tree instanceof Expression.Literal literal
        && literal.value() instanceof Value.Interval interval
        && left.kind().isMoment()
        && (back || e.operator() == Expression.Arithmetic.PLUS)) {
      boolean subDay = !interval.duration().isZero();
      if (left.kind() == Kind.DATE && subDay) {
        problem(e, "A date has no hours; move it by whole days.");
      }
      return new Typed(
          new Expression.Shift(left.tree, interval, back, left.kind(), e.place()), left.kind());
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
                operand.map(Typed::tree), whens, otherwise.map(Typed::tree), e.place()));
  }

  /** What several branches give together; reports one that is of another kind. */
  private Typed result(Expression e, Optional<Typed> before, Typed now) {
    if (before.isEmpty() || before.get().kind() == Kind.NULL) {
      return now;
    }
    Typed earlier = before.get();
    if (now.kind() == Kind.NULL) {
      return earlier;
    }
    if (earlier.kind() != now.kind() && !(earlier.kind().isNumeric() && now.kind().isNumeric())) {
      problem(
          e,
          "The branches differ: one gives "
              + earlier.kind().words()
              + ", this one "
              + now.kind().words()
              + ".");
    }
    return new Typed(now.tree, earlier.type.joinedWith(now.type));
  }

  private Typed call(Expression.Call e) {
    return switch (e.function()) {
      case CHAR_LENGTH -> call(e, texts(e), Kind.WHOLE);
      case OCTET_LENGTH -> octetLength(e);
      case POSITION -> call(e, texts(e), Kind.WHOLE);
      case UPPER, LOWER -> call(e, texts(e), Kind.TEXT);
      case TRIM, LTRIM, RTRIM -> trim(e);
      case LPAD, RPAD -> pad(e);
      case CONCAT_WS -> joined(e);
      case OVERLAY -> overlay(e);
      case SUBSTRING -> substring(e);
      case ABS, FLOOR, CEILING -> {
        Typed operand = of(e.arguments().getFirst());
        requireNumber(e.arguments().getFirst(), operand);
        if (operand.kind() == Kind.WHOLE && e.function() != Expression.Function.ABS) {
          yield operand; // Nothing is to be rounded, and some engines would make it inexact.
        }
        var tree = new Expression.Call(e.function(), List.of(operand.tree), e.place());
        yield operand.kind() == Kind.WHOLE
            ? fitting(tree, operand.type.width())
            : new Typed(
                tree,
                e.function() == Expression.Function.ABS
                    ? operand.type
                    : new ValueType(operand.kind(), Width.BITS_32, 0));
      }
      case MOD -> mod(e);
      case ROUND -> round(e);
      case COALESCE, NULLIF -> alike(e);
    };
  }

  private Typed octetLength(Expression.Call e) {
    Typed operand = of(e.arguments().getFirst());
    if (operand.kind() != Kind.BYTES && operand.kind() != Kind.NULL) {
      String hint = operand.kind() == Kind.TEXT ? " A text has its CHAR_LENGTH." : "";
      problem(
          e.arguments().getFirst(),
          describe(e.arguments().getFirst(), operand.kind()) + "; only files have bytes." + hint);
    }
    return call(e, List.of(operand.tree), Kind.WHOLE);
  }

  private List<Expression> texts(Expression.Call e) {
    return e.arguments().stream().map(this::text).toList();
  }

  private static Typed call(Expression.Call e, List<Expression> arguments, Kind kind) {
    return new Typed(new Expression.Call(e.function(), arguments, e.place()), kind);
  }

  private Typed substring(Expression.Call e) {
    var arguments = new ArrayList<Expression>();
    arguments.add(text(e.arguments().getFirst()));
    e.arguments().stream().skip(1).map(this::number).forEach(arguments::add);
    return call(e, arguments, Kind.TEXT);
  }

  /** A blank needs not be told. */
  private Typed trim(Expression.Call e) {
    Expression text = text(e.arguments().getFirst());
    boolean blank = e.arguments().size() == 1 || isText(e.arguments().get(1), " ");
    if (!blank && !isCharacter(e.arguments().get(1))) {
      problem(
          e.arguments().get(1), e.function() + " is told one character to take off, in quotes.");
    }
    return call(e, blank ? List.of(text) : List.of(text, e.arguments().get(1)), Kind.TEXT);
  }

  /** A blank is what fills, unless something else is told. */
  private Typed pad(Expression.Call e) {
    Expression text = text(e.arguments().getFirst());
    Expression length = e.arguments().get(1);
    Expression filling =
        e.arguments().size() > 2
            ? e.arguments().get(2)
            : new Expression.Literal(new Value.Text(" "), Kind.TEXT, e.place());
    if (place(length).filter(most -> most >= 1 && most <= LONGEST_PADDED).isEmpty()) {
      problem(length, e.function() + " is told how long the text becomes by a number to 1000.");
    }
    if (!isCharacter(filling)) {
      problem(filling, e.function() + " is told one character to fill up with, in quotes.");
    }
    return call(e, List.of(text, length, filling), Kind.TEXT);
  }

  private Typed joined(Expression.Call e) {
    Expression between = e.arguments().getFirst();
    if (!(between instanceof Expression.Literal(Value.Text text, var kind, var place))) {
      problem(between, "CONCAT_WS is told first, in quotes, what stands between the texts.");
    }
    return call(e, texts(e), Kind.TEXT);
  }

  /**
   * Written out as what it is defined by (ISO/IEC 9075-2, character overlay function): what is
   * before the place, the other text, and what is behind as much as that covers.
   */
  private Typed overlay(Expression.Call e) {
    Expression text = e.arguments().getFirst();
    Expression other = e.arguments().get(1);
    Expression from = e.arguments().get(2);
    Optional<Integer> start = place(from).filter(at -> at >= 1);
    Optional<Integer> covered =
        e.arguments().size() > 3 ? place(e.arguments().get(3)) : length(other);
    if (start.isEmpty()) {
      problem(from, "OVERLAY is told where it begins by a number from 1 on.");
    } else if (covered.isEmpty()) {
      problem(e, "OVERLAY is told how many characters are covered: … FOR 2).");
    }
    if (start.isEmpty() || covered.isEmpty()) {
      return new Typed(e, Kind.NULL);
    }
    Expression behind =
        new Expression.Call(
            Expression.Function.SUBSTRING,
            List.of(text, whole(start.get() + covered.get(), e)),
            e.place());
    Expression rest = new Expression.Concat(other, behind, e.place());
    if (start.get() == 1) {
      return of(rest);
    }
    Expression before =
        new Expression.Call(
            Expression.Function.SUBSTRING,
            List.of(text, whole(1, e), whole(start.get() - 1, e)),
            e.place());
    return of(new Expression.Concat(before, rest, e.place()));
  }

  private static Expression whole(int number, Expression at) {
    return new Expression.Literal(Value.whole(number), Kind.WHOLE, at.place());
  }

  /** A whole number that is written out and not below zero. */
  private static Optional<Integer> place(Expression e) {
    return e instanceof Expression.Literal(Value.Num(var number, var whole), var kind, var at)
            && whole
            && number.signum() >= 0
            && number.compareTo(LONGEST_TEXT) <= 0
        ? Optional.of(number.intValueExact())
        : Optional.empty();
  }

  private static Optional<Integer> length(Expression e) {
    return e instanceof Expression.Literal(Value.Text(String text), var kind, var at)
        ? Optional.of(text.codePointCount(0, text.length()))
        : Optional.empty();
  }

  private static boolean isCharacter(Expression e) {
    return length(e).equals(Optional.of(1));
  }

  private static boolean isText(Expression e, String wanted) {
    return e instanceof Expression.Literal(Value.Text(String text), var kind, var at)
        && text.equals(wanted);
  }

  /** Rounds half away from zero; how many decimals stay is written out, for it makes the type. */
  private Typed round(Expression.Call e) {
    Expression rounded = e.arguments().getFirst();
    Typed operand = of(rounded);
    requireNumber(rounded, operand);
    if (operand.kind() == Kind.WHOLE) {
      problem(rounded, describe(rounded, Kind.WHOLE) + "; it has no decimals to round.");
    }
    Expression decimals =
        e.arguments().size() > 1
            ? e.arguments().get(1)
            : new Expression.Literal(Value.whole(0), Kind.WHOLE, e.place());
    boolean few =
        decimals instanceof Expression.Literal(Value.Num(var number, var whole), var k, var at)
            && whole
            && number.compareTo(BigDecimal.valueOf(MOST_DECIMALS)) <= 0;
    if (!few) {
      problem(decimals, "ROUND is told how many decimals stay by a number from 0 to 20.");
      return new Typed(e, Kind.NULL);
    }
    int scale = ((Value.Num) ((Expression.Literal) decimals).value()).number().intValue();
    return new Typed(
        new Expression.Call(e.function(), List.of(operand.tree, decimals), e.place()),
        ValueType.number(scale));
  }

  private Typed mod(Expression.Call e) {
    List<Typed> typed = e.arguments().stream().map(this::of).toList();
    for (int i = 0; i < typed.size(); i++) {
      Kind kind = typed.get(i).kind();
      if (kind != Kind.WHOLE && kind != Kind.NULL) {
        Expression argument = e.arguments().get(i);
        problem(argument, describe(argument, kind) + "; a remainder is of whole numbers.");
      }
    }
    Width width = typed.get(0).type.width().orWider(typed.get(1).type.width());
    return new Typed(
        new Expression.Call(e.function(), typed.stream().map(Typed::tree).toList(), e.place()),
        ValueType.whole(width));
  }

  private Typed alike(Expression.Call e) {
    List<Typed> typed = e.arguments().stream().map(this::of).toList();
    Optional<Typed> all = Optional.empty();
    for (int i = 0; i < typed.size(); i++) {
      all = Optional.of(result(e.arguments().get(i), all, typed.get(i)));
    }
    return all.orElseThrow()
        .as(new Expression.Call(e.function(), typed.stream().map(Typed::tree).toList(), e.place()));
  }

  private Typed extract(Expression.Extract e) {
    Typed operand = of(e.operand());
    boolean ofDay = e.part().isOfDay();
    boolean fits =
        switch (operand.kind()) {
          case DATE -> !ofDay;
          case TIME -> ofDay;
          case DATE_TIME, ZONED, NULL -> true;
          case BOOLEAN, WHOLE, NUMBER, TEXT, UUID, INTERVAL, BYTES -> false;
        };
    if (!fits) {
      problem(e.operand(), describe(e.operand(), operand.kind()) + "; it has no " + e.part() + ".");
    }
    return new Typed(
        new Expression.Extract(e.part(), operand.tree, operand.kind(), e.place()), Kind.WHOLE);
  }

  /** Days between dates, else seconds between moments and the whole part of their quotient. */
  private Typed elapsed(Expression.Elapsed e) {
    Typed later = of(e.later());
    Typed earlier = of(e.earlier());
    Kind kind =
        later.kind() == Kind.NULL ? earlier.kind() : later.kind().joinedWith(earlier.kind());
    for (Typed typed : List.of(later, earlier)) {
      boolean fits =
          typed.kind() == Kind.NULL
              || typed.kind().isMoment() && (typed.kind() == Kind.ZONED) == (kind == Kind.ZONED);
      if (!fits) {
        problem(
            typed.tree, "Between " + named(later) + " and " + named(earlier) + " no time lies.");
        return new Typed(e, Kind.NULL);
      }
    }
    boolean days = kind == Kind.DATE || kind == Kind.NULL;
    if (days && e.unit() != Expression.Unit.DAY) {
      problem(e, "Dates have no hours; between them there are days: EXTRACT(DAY FROM (…) DAY).");
      return new Typed(e, Kind.NULL);
    }
    var unit = days ? Expression.Unit.DAY : Expression.Unit.SECOND;
    var between =
        new Expression.Elapsed(
            unit, lift(later, kind), lift(earlier, kind), days ? Kind.DATE : kind, e.place());
    if (unit == e.unit()) {
      return new Typed(between, ValueType.whole(days ? Width.BITS_32 : Width.BITS_64));
    }
    Expression by = whole(e.unit().seconds(), e);
    var quotient =
        new Expression.Compute(Expression.Arithmetic.DIVIDE, between, by, true, e.place());
    return fitting(quotient, Width.BITS_64);
  }

  private String describe(Expression e, Kind kind) {
    String subject = e instanceof Expression.Name name ? shown(name) : "This";
    return subject + " is " + kind.words();
  }

  /** Called as the scope calls it. */
  private String shown(Expression.Name name) {
    return scope.find(name.path()).map(Reference::name).orElse(name.text());
  }

  private void problem(Expression e, String message) {
    problems.add(new Problem(e.place().span(), message));
  }
}
