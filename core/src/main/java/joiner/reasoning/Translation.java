package joiner.reasoning;

import com.microsoft.z3.BoolExpr;
import com.microsoft.z3.Expr;
import com.microsoft.z3.IntExpr;
import com.microsoft.z3.RealExpr;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Expression;
import joiner.expression.Expression.Arithmetic;
import joiner.expression.Kind;
import joiner.expression.LikePattern;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.meaning.TableMeaning;
import joiner.model.OwnField;

/**
 * Conditions as the solver has them, with what is read standing for any row. What the solver has no
 * words for (changed case, padding, months added) becomes something unknown of its kind, the same
 * for the same expression: then whatever is impossible stays impossible, and what is found possible
 * is tried by the evaluator.
 *
 * <p>Each expression fails where evaluating it would: in the order in which the evaluator goes,
 * what it does not look at does not fail.
 */
final class Translation {
  private final Logic logic;
  private final Calendar calendar;
  private final Patterns patterns;
  private final TableMeaning meaning;
  private final Map<Reference, Term> read = new LinkedHashMap<>();

  private final Map<Expression, Term> unknown = new HashMap<>();

  /** Today as the day of all conditions, and the moment it is now. */
  private final IntExpr now;

  /** What values of what is read are like. */
  private final List<BoolExpr> kinds = new ArrayList<>();

  Translation(Logic logic, TableMeaning meaning) {
    this.logic = logic;
    this.calendar = new Calendar(logic);
    this.patterns = new Patterns(logic);
    this.meaning = meaning;
    this.now = (IntExpr) logic.unknown("now", Kind.DATE_TIME);
    kinds.add(within(now, Kind.DATE_TIME));
  }

  /** What is read so far, and what it stands for. */
  Map<Reference, Term> read() {
    return read;
  }

  /** What holds of values because of their kinds. */
  List<BoolExpr> kinds() {
    return kinds;
  }

  /** That it is now that moment. */
  BoolExpr isNow(LocalDateTime at) {
    return logic.same(now, logic.whole(micros(at)));
  }

  static long micros(LocalDateTime at) {
    return at.toEpochSecond(ZoneOffset.UTC) * Logic.MICROS + at.getNano() / 1_000;
  }

  private Term known(Expr<?> value) {
    return new Term(logic.no(), value, logic.no());
  }

  private Term none(Kind kind) {
    return new Term(logic.yes(), logic.unknown("none", kind), logic.no());
  }

  /** What has a value where all of some do, and fails where one does. */
  private Term strict(Expr<?> value, Term... of) {
    return new Term(
        logic.or(Stream.of(of).map(Term::isNull).toArray(BoolExpr[]::new)),
        value,
        logic.or(Stream.of(of).map(Term::fails).toArray(BoolExpr[]::new)));
  }

  private Term failing(Term term, BoolExpr also) {
    BoolExpr here = logic.and(logic.not(term.isNull()), also);
    return new Term(term.isNull(), term.value(), logic.or(term.fails(), here));
  }

  /** Values of a kind that there are: moments lie in the years 1 to 9999. */
  private BoolExpr within(Expr<?> value, Kind kind) {
    return switch (kind) {
      case DATE ->
          between(
              value, LocalDate.of(1, 1, 1).toEpochDay(), LocalDate.of(9999, 12, 31).toEpochDay());
      case DATE_TIME, ZONED ->
          between(
              value,
              micros(LocalDate.of(1, 1, 1).atStartOfDay()),
              micros(LocalDate.of(9999, 12, 31).atTime(LocalTime.MAX)));
      case TIME -> between(value, 0, Logic.DAY - 1);
      case BOOLEAN, WHOLE, NUMBER, TEXT, UUID, INTERVAL, BYTES, NULL -> logic.yes();
    };
  }

  private BoolExpr between(Expr<?> value, long least, long most) {
    return logic.and(
        logic.atMost(logic.whole(least), value), logic.atMost(value, logic.whole(most)));
  }

  /** What is read of a row; what is worked out, and never from itself, stands for its formula. */
  Term read(Reference reference) {
    Term there = read.get(reference);
    if (there == null) {
      Optional<Checked> computed =
          reference instanceof OwnField own ? meaning.computed(own.field()) : Optional.empty();
      there =
          computed.orElse(null) instanceof Checked.Sound sound ? of(sound.tree()) : any(reference);
      read.put(reference, there);
    }
    return there;
  }

  private Term any(Reference reference) {
    String name = reference.name();
    int scale = reference.type().scale();
    Expr<?> value =
        reference.type().kind() == Kind.NUMBER && scale >= 0
            ? decimal(name, scale)
            : some(name, reference.type().kind());
    if (reference.type().kind() == Kind.WHOLE) {
      kinds.add(fits((IntExpr) value, reference.type().width()));
    }
    return new Term(maybe(name + " is null"), value, logic.no());
  }

  /** A number of so many decimals: a whole one of its last place. */
  private Expr<?> decimal(String name, int scale) {
    IntExpr parts = (IntExpr) logic.unknown(name, Kind.WHOLE);
    return logic
        .z3()
        .mkDiv(logic.real(parts), logic.number(BigDecimal.ONE.scaleByPowerOfTen(scale)));
  }

  /** Some value of a kind. */
  private Expr<?> some(String name, Kind kind) {
    Expr<?> value = logic.unknown(name, kind);
    kinds.add(within(value, kind));
    return value;
  }

  private BoolExpr maybe(String name) {
    return (BoolExpr) logic.unknown(name, Kind.BOOLEAN);
  }

  private BoolExpr fits(IntExpr value, Width width) {
    return between(value, width.min(), width.max());
  }

  /** What was made for an expression, or is made now: equal expressions are one unknown. */
  private Term once(Expression e, Supplier<Term> made) {
    Term there = unknown.get(e);
    if (there == null) {
      there = made.get();
      unknown.put(e, there);
    }
    return there;
  }

  /** Something that may be anything where all of some have a value; it never fails by itself. */
  private Term unknown(Expression e, Kind kind, Term... of) {
    return once(e, () -> strict(some("something", kind), of));
  }

  /** The same of something that may fail, one knows not when. */
  private Term risky(Expression e, Kind kind, Term... of) {
    return once(e, () -> failing(strict(some("something", kind), of), maybe("fails")));
  }

  /** Something that may even be nothing. */
  private Term anything(Expression e, Kind kind) {
    return once(e, () -> new Term(maybe("is null"), some("something", kind), maybe("fails")));
  }

  Term of(Expression tree) {
    return switch (tree) {
      case Expression.Literal e -> literal(e.value(), e.kind());
      case Expression.Name e -> throw new IllegalArgumentException("not looked up");
      case Expression.FieldRef e -> read(e.to());
      case Expression.Now e -> now(e);
      case Expression.Not e -> not(of(e.operand()));
      case Expression.Negate e -> negated(of(e.operand()));
      case Expression.And e -> fold(of(e.operands()), false);
      case Expression.Or e -> fold(of(e.operands()), true);
      case Expression.Compare e -> compared(e.operator(), of(e.left()), of(e.right()));
      case Expression.Compute e -> computed(e);
      case Expression.Shift e -> shifted(e);
      case Expression.StartOfDay e -> startOfDay(of(e.date()));
      case Expression.Fitting e -> fitting(of(e.operand()), e.width());
      case Expression.CodePoints e -> of(e.operand());
      case Expression.Concat e -> concatenated(of(e.left()), of(e.right()));
      case Expression.Between e -> between(e);
      case Expression.In e -> in(e);
      case Expression.Like e -> like(e);
      case Expression.IsNull e -> isNull(of(e.operand()), e.negated());
      case Expression.IsTruth e -> isTruth(e);
      case Expression.Case e -> caseOf(e);
      case Expression.Call e -> call(e);
      case Expression.Extract e -> extracted(e);
      case Expression.Elapsed e -> elapsed(e);
      case Expression.ToText e -> unknown(e, Kind.TEXT, of(e.operand()));
    };
  }

  private List<Term> of(List<Expression> all) {
    return all.stream().map(this::of).toList();
  }

  private Term startOfDay(Term day) {
    return new Term(day.isNull(), logic.times(Logic.DAY, (IntExpr) day.value()), day.fails());
  }

  private Term fitting(Term operand, Width width) {
    return operand.value() instanceof IntExpr whole
        ? failing(operand, logic.not(fits(whole, width)))
        : operand;
  }

  private Term concatenated(Term left, Term right) {
    Expr<?> both = logic.z3().mkConcat(Logic.text(left.value()), Logic.text(right.value()));
    return strict(both, left, right);
  }

  private Term between(Expression.Between e) {
    Term operand = of(e.operand());
    Term low = compared(Expression.Comparison.AT_LEAST, operand, of(e.low()));
    Term high = compared(Expression.Comparison.AT_MOST, operand, of(e.high()));
    Term both = fold(List.of(low, high), false);
    Term inside = new Term(both.isNull(), both.value(), logic.or(low.fails(), high.fails()));
    return e.negated() ? not(inside) : inside;
  }

  private Term in(Expression.In e) {
    Term operand = of(e.operand());
    List<Term> same =
        e.options().stream()
            .map(option -> compared(Expression.Comparison.EQUAL, operand, of(option)))
            .toList();
    Term found = fold(same, true);
    return e.negated() ? not(found) : found;
  }

  private Term isNull(Term operand, boolean negated) {
    BoolExpr is = negated ? logic.not(operand.isNull()) : operand.isNull();
    return new Term(logic.no(), is, operand.fails());
  }

  /** A value written out. */
  Term literal(Value value, Kind kind) {
    return switch (value) {
      case Value.Null none -> none(kind);
      case Value.Bool(boolean truth) -> known(truth ? logic.yes() : logic.no());
      case Value.Num num ->
          known(
              num.whole() && num.number().scale() <= 0
                  ? logic.z3().mkInt(num.number().toBigInteger().toString())
                  : logic.number(num.number()));
      case Value.Text(String text) -> known(logic.literal(text));
      case Value.Date(LocalDate date) -> known(logic.whole(date.toEpochDay()));
      case Value.Time(LocalTime time) -> known(logic.whole(time.toNanoOfDay() / 1_000));
      case Value.DateTime(LocalDateTime at) -> known(logic.whole(micros(at)));
      case Value.Zoned zoned ->
          known(
              logic.whole(
                  micros(zoned.at().withOffsetSameInstant(ZoneOffset.UTC).toLocalDateTime())));
      case Value.Interval interval -> none(Kind.INTERVAL);
      case Value.Bytes bytes -> known(logic.literal(bytes.base64()));
    };
  }

  private Term now(Expression.Now e) {
    return switch (e.kind()) {
      case DATE -> known(logic.floorDivided(now, Logic.DAY));
      case DATE_TIME -> known(now);
      case TEXT -> anything(e, Kind.TEXT);
      case BOOLEAN, WHOLE, NUMBER, TIME, ZONED, UUID, INTERVAL, BYTES, NULL ->
          anything(e, Kind.ZONED); // Whose zone it is, the row does not tell.
    };
  }

  private Term not(Term operand) {
    return new Term(operand.isNull(), logic.not(operand.truth()), operand.fails());
  }

  private Term negated(Term operand) {
    Expr<?> value =
        operand.value() instanceof IntExpr whole
            ? (IntExpr) logic.z3().mkUnaryMinus(whole)
            : (RealExpr) logic.z3().mkUnaryMinus(logic.real(operand.value()));
    return new Term(operand.isNull(), value, operand.fails());
  }

  /**
   * AND (deciding = false) or OR (deciding = true): what comes after the deciding one is not seen.
   */
  private Term fold(List<Term> operands, boolean deciding) {
    BoolExpr decided = logic.no();
    BoolExpr anyNull = logic.no();
    BoolExpr fails = logic.no();
    for (Term operand : operands) {
      fails = logic.or(fails, logic.and(logic.not(decided), operand.fails()));
      BoolExpr truth = deciding ? operand.truth() : logic.not(operand.truth());
      decided = logic.or(decided, logic.and(logic.not(operand.isNull()), truth));
      anyNull = logic.or(anyNull, operand.isNull());
    }
    return new Term(
        logic.and(logic.not(decided), anyNull), deciding ? decided : logic.not(decided), fails);
  }

  Term compared(Expression.Comparison operator, Term left, Term right) {
    if (!areOfOneSort(left, right)) { // One of them is no more than NULL.
      return strict(logic.unknown("incomparable", Kind.BOOLEAN), left, right);
    }
    BoolExpr holds =
        switch (operator) {
          case EQUAL -> logic.same(left.value(), right.value());
          case NOT_EQUAL -> logic.not(logic.same(left.value(), right.value()));
          case LESS -> less(left.value(), right.value());
          case AT_MOST -> logic.not(less(right.value(), left.value()));
          case GREATER -> less(right.value(), left.value());
          case AT_LEAST -> logic.not(less(left.value(), right.value()));
        };
    return strict(holds, left, right);
  }

  /** Whether two values can be compared. */
  static boolean areOfOneSort(Term one, Term other) {
    return one.value().getSort().equals(other.value().getSort())
        || isNumber(one.value()) && isNumber(other.value());
  }

  private static boolean isNumber(Expr<?> value) {
    return value instanceof IntExpr || value instanceof RealExpr;
  }

  private BoolExpr less(Expr<?> one, Expr<?> other) {
    if (one instanceof BoolExpr first && other instanceof BoolExpr second) {
      return logic.and(logic.not(first), second);
    }
    return isNumber(one)
        ? logic.less(one, other)
        : logic.z3().MkStringLt(Logic.text(one), Logic.text(other));
  }

  private Term computed(Expression.Compute e) {
    Term left = of(e.left());
    Term right = of(e.right());
    boolean whole = left.value() instanceof IntExpr && right.value() instanceof IntExpr;
    if (e.operator() == Arithmetic.DIVIDE) {
      return divided(e, left, right, whole);
    }
    if (e.operator() == Arithmetic.TIMES && !isConstant(e.left()) && !isConstant(e.right())) {
      return unknown(e, whole ? Kind.WHOLE : Kind.NUMBER, left, right);
    }
    Expr<?> value =
        whole
            ? switch (e.operator()) {
              case PLUS -> logic.plus((IntExpr) left.value(), (IntExpr) right.value());
              case MINUS -> logic.minus((IntExpr) left.value(), (IntExpr) right.value());
              case TIMES, DIVIDE ->
                  (IntExpr) logic.z3().mkMul((IntExpr) left.value(), (IntExpr) right.value());
            }
            : switch (e.operator()) {
              case PLUS ->
                  (RealExpr) logic.z3().mkAdd(logic.real(left.value()), logic.real(right.value()));
              case MINUS ->
                  (RealExpr) logic.z3().mkSub(logic.real(left.value()), logic.real(right.value()));
              case TIMES, DIVIDE ->
                  (RealExpr) logic.z3().mkMul(logic.real(left.value()), logic.real(right.value()));
            };
    return strict(value, left, right);
  }

  private static boolean isConstant(Expression e) {
    return e instanceof Expression.Literal
        || e instanceof Expression.Negate(Expression of, var place) && isConstant(of);
  }

  private Term divided(Expression.Compute e, Term left, Term right, boolean whole) {
    Kind kind = whole ? Kind.WHOLE : Kind.NUMBER;
    boolean exact = isConstant(e.right()) && (whole || divides(e.right()));
    if (!exact) {
      return failing(unknown(e, kind, left, right), logic.same(right.value(), logic.whole(0)));
    }
    Expr<?> value =
        whole
            ? logic.quotient((IntExpr) left.value(), (IntExpr) right.value())
            : (RealExpr) logic.z3().mkDiv(logic.real(left.value()), logic.real(right.value()));
    return failing(strict(value, left, right), logic.same(right.value(), logic.whole(0)));
  }

  /** Whether decimals stay decimals when they are divided by a constant. */
  private static boolean divides(Expression constant) {
    if (constant instanceof Expression.Negate(Expression of, var place)) {
      return divides(of);
    }
    if (!(((Expression.Literal) constant).value() instanceof Value.Num num)) {
      return false;
    }
    try {
      BigDecimal ended = BigDecimal.ONE.divide(num.number());
      return ended.signum() != 0;
    } catch (ArithmeticException endless) {
      return false;
    }
  }

  private Term shifted(Expression.Shift e) {
    Term moment = of(e.moment());
    if (e.interval().period().toTotalMonths() != 0) {
      return risky(e, e.kind(), moment);
    }
    long days = e.interval().period().getDays();
    boolean isDate = e.kind() == Kind.DATE;
    long by = isDate ? days : days * Logic.DAY + e.interval().duration().toNanos() / 1_000;
    IntExpr value = logic.plus((IntExpr) moment.value(), logic.whole(e.back() ? -by : by));
    return strict(value, moment); // Beyond the calendar the evaluator goes on, as engines do not.
  }

  private Term like(Expression.Like e) {
    Term text = of(e.operand());
    Term pattern = of(e.pattern());
    if (!(e.pattern() instanceof Expression.Literal(Value.Text(String written), var k, var p))) {
      return risky(e, Kind.BOOLEAN, text, pattern);
    }
    try {
      LikePattern read = LikePattern.of(written, e.escape());
      BoolExpr matches = logic.z3().mkInRe(Logic.text(text.value()), patterns.of(read));
      return strict(e.negated() ? logic.not(matches) : matches, text, pattern);
    } catch (EvaluationException wrong) {
      return failing(strict(logic.yes(), text, pattern), logic.yes());
    }
  }

  private Term isTruth(Expression.IsTruth e) {
    Term operand = of(e.operand());
    BoolExpr is =
        e.truth()
            .map(
                truth ->
                    logic.and(
                        logic.not(operand.isNull()),
                        truth ? operand.truth() : logic.not(operand.truth())))
            .orElse(operand.isNull());
    return new Term(logic.no(), e.negated() ? logic.not(is) : is, operand.fails());
  }

  /** The last branch first, each of the others before it. */
  private Term caseOf(Expression.Case e) {
    Optional<Term> operand = e.operand().map(this::of);
    List<Term> results =
        Stream.concat(e.whens().stream().map(Expression.When::result), e.otherwise().stream())
            .map(this::of)
            .toList();
    Term chosen =
        e.otherwise().isPresent()
            ? results.getLast()
            : new Term(logic.yes(), results.getFirst().value(), logic.no());
    for (int i = e.whens().size() - 1; i >= 0; i--) {
      Term condition = of(e.whens().get(i).condition());
      Term holds =
          operand.map(o -> compared(Expression.Comparison.EQUAL, o, condition)).orElse(condition);
      BoolExpr taken = logic.and(logic.not(holds.isNull()), holds.truth());
      Term result = results.get(i);
      chosen =
          new Term(
              (BoolExpr) logic.either(taken, result.isNull(), chosen.isNull()),
              logic.either(taken, valueLike(result, chosen), valueLike(chosen, result)),
              logic.or(
                  holds.fails(), (BoolExpr) logic.either(taken, result.fails(), chosen.fails())));
    }
    BoolExpr first = operand.map(Term::fails).orElse(logic.no());
    return new Term(chosen.isNull(), chosen.value(), logic.or(first, chosen.fails()));
  }

  /** The value of a term; where it is a NULL of no kind, one of the other's kind. */
  private Expr<?> valueLike(Term one, Term other) {
    return areOfOneSort(one, other) || !one.isNull().equals(logic.yes())
        ? one.value()
        : other.value();
  }

  private Term call(Expression.Call e) {
    List<Term> all = of(e.arguments());
    Term first = all.getFirst();
    Term[] each = all.toArray(Term[]::new);
    return switch (e.function()) {
      case COALESCE -> coalesced(all);
      case NULLIF -> nullIf(first, all.get(1));
      case CHAR_LENGTH -> strict(logic.z3().mkLength(Logic.text(first.value())), first);
      case POSITION -> position(first, all.get(1));
      case SUBSTRING -> substring(all);
      case ABS -> absolute(first);
      case FLOOR -> rounded(first, false);
      case CEILING -> rounded(first, true);
      case MOD -> remainder(e, first, all.get(1));
      case OCTET_LENGTH -> unknown(e, Kind.WHOLE, first);
      case ROUND -> unknown(e, Kind.NUMBER, each);
      case CONCAT_WS -> { // Only its separator must be there.
        Term joined = unknown(e, Kind.TEXT, first);
        List<BoolExpr> fails = all.stream().map(Term::fails).toList();
        yield new Term(joined.isNull(), joined.value(), logic.or(fails));
      }
      case UPPER, LOWER, TRIM, LTRIM, RTRIM -> unknown(e, Kind.TEXT, each);
      case LPAD, RPAD, OVERLAY -> risky(e, Kind.TEXT, each);
    };
  }

  private Term nullIf(Term one, Term other) {
    Term same = compared(Expression.Comparison.EQUAL, one, other);
    BoolExpr none = logic.or(one.isNull(), logic.and(logic.not(same.isNull()), same.truth()));
    return new Term(none, one.value(), same.fails());
  }

  private Term position(Term part, Term whole) {
    IntExpr at =
        logic.z3().mkIndexOf(Logic.text(whole.value()), Logic.text(part.value()), logic.whole(0));
    return strict(logic.plus(at, logic.whole(1)), part, whole);
  }

  private Term absolute(Term number) {
    Expr<?> value = number.value();
    return strict(
        logic.either(logic.less(value, logic.whole(0)), negated(number).value(), value), number);
  }

  private Term remainder(Expression.Call e, Term one, Term other) {
    boolean simple =
        isConstant(e.arguments().get(1))
            && one.value() instanceof IntExpr
            && other.value() instanceof IntExpr;
    BoolExpr byZero = logic.same(other.value(), logic.whole(0));
    if (!simple) {
      return failing(unknown(e, Kind.WHOLE, one, other), byZero);
    }
    IntExpr by = (IntExpr) other.value();
    IntExpr whole = logic.quotient((IntExpr) one.value(), by);
    IntExpr rest = logic.minus((IntExpr) one.value(), (IntExpr) logic.z3().mkMul(whole, by));
    return failing(strict(rest, one, other), byZero);
  }

  private Term rounded(Term number, boolean up) {
    if (number.value() instanceof IntExpr) {
      return number;
    }
    RealExpr real = logic.real(number.value());
    Expr<?> value =
        up
            ? logic
                .z3()
                .mkUnaryMinus(logic.z3().mkReal2Int((RealExpr) logic.z3().mkUnaryMinus(real)))
            : logic.z3().mkReal2Int(real);
    return strict(value, number);
  }

  private Term coalesced(List<Term> all) {
    Term chosen = all.getLast();
    for (int i = all.size() - 2; i >= 0; i--) {
      Term one = all.get(i);
      chosen =
          new Term(
              logic.and(one.isNull(), chosen.isNull()),
              logic.either(one.isNull(), valueLike(chosen, one), valueLike(one, chosen)),
              logic.or(one.fails(), logic.and(one.isNull(), chosen.fails())));
    }
    return chosen;
  }

  private Term substring(List<Term> all) {
    Term text = all.get(0);
    Term from = all.get(1);
    IntExpr first = (IntExpr) from.value();
    IntExpr start = atLeastZero(logic.minus(first, logic.whole(1)));
    if (all.size() == 2) {
      IntExpr length = logic.z3().mkLength(Logic.text(text.value()));
      return strict(logic.z3().mkExtract(Logic.text(text.value()), start, length), text, from);
    }
    Term count = all.get(2);
    IntExpr end = logic.plus(first, (IntExpr) count.value());
    IntExpr stop = atLeastZero(logic.minus(end, logic.whole(1)));
    Expr<?> part = logic.z3().mkExtract(Logic.text(text.value()), start, logic.minus(stop, start));
    return failing(strict(part, text, from, count), logic.less(end, first));
  }

  private IntExpr atLeastZero(IntExpr one) {
    return (IntExpr) logic.either(logic.less(one, logic.whole(0)), logic.whole(0), one);
  }

  private Term extracted(Expression.Extract e) {
    Term of = of(e.operand());
    IntExpr value = (IntExpr) of.value();
    boolean isDate = e.kind() == Kind.DATE;
    IntExpr days = isDate || e.kind() == Kind.TIME ? value : logic.floorDivided(value, Logic.DAY);
    IntExpr ofDay = isDate ? logic.whole(0) : logic.z3().mkMod(value, logic.whole(Logic.DAY));
    IntExpr part =
        switch (e.part()) {
          case HOUR -> logic.floorDivided(ofDay, 3_600 * Logic.MICROS);
          case MINUTE ->
              logic.z3().mkMod(logic.floorDivided(ofDay, 60 * Logic.MICROS), logic.whole(60));
          case YEAR, MONTH, DAY, ISODOW -> calendar.part(e.part(), days);
        };
    return strict(part, of);
  }

  private Term elapsed(Expression.Elapsed e) {
    Term later = of(e.later());
    Term earlier = of(e.earlier());
    IntExpr between = logic.minus((IntExpr) later.value(), (IntExpr) earlier.value());
    IntExpr value =
        e.kind() == Kind.DATE
            ? between
            : logic.quotient(
                logic.quotient(between, logic.whole(Logic.MICROS)), logic.whole(seconds(e.unit())));
    return strict(value, later, earlier);
  }

  private static long seconds(Expression.Unit unit) {
    return switch (unit) {
      case DAY -> 86_400;
      case HOUR -> 3_600;
      case MINUTE -> 60;
      case SECOND -> 1;
    };
  }
}
