package joiner.audit;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.FieldId;
import joiner.model.OwnField;

/**
 * A rule made ready for many rows: whole columns of numbers, truths and texts are compared at once
 * where the rule can be taken apart into such steps. A row for which a step cannot tell, as where a
 * sum leaves 64 bits, is asked of the evaluator, and so is every row where the rule has a part that
 * is no such step; so the verdict is always the evaluator's.
 */
final class RuleProgram {
  private static final byte FALSE = 0;
  private static final byte TRUE = 1;
  private static final byte UNKNOWN = 2;

  /** The evaluator is to be asked. */
  private static final byte ASK = 3;

  private final Expression tree;
  private final Evaluator evaluator;
  private final Map<FieldId, TypedCells> cells;
  private final Optional<Truths> truths;
  private final int most;
  private final byte[] verdicts;

  /** A step that gives a truth for each row. */
  private interface Truths {
    void of(int rows, byte[] out);
  }

  /** A step that gives a number in some form for each row. */
  private interface Numbers {
    LongForm form();

    /** Puts numbers, and beside them TRUE where there is one, UNKNOWN for NULL, or ASK. */
    void of(int rows, long[] out, byte[] known);
  }

  /** A part that is no step. */
  private static final class NoStep extends Exception {
    private static final long serialVersionUID = 1L;

    NoStep() {
      super(null, null, false, false);
    }
  }

  /**
   * Makes a rule ready.
   *
   * @param cells of the fields it reads
   * @param most how many rows a batch has
   */
  RuleProgram(Expression tree, Map<FieldId, TypedCells> cells, Clock clock, int most) {
    this.tree = tree;
    this.most = most;
    this.verdicts = new byte[most];
    this.cells = cells;
    this.evaluator = new Evaluator(clock);
    this.truths = steps(tree);
  }

  private Optional<Truths> steps(Expression condition) {
    try {
      return Optional.of(truths(condition));
    } catch (NoStep none) {
      return Optional.empty();
    }
  }

  /** Whether it goes by steps, not row by row. */
  boolean isBySteps() {
    return truths.isPresent();
  }

  /**
   * Tells which rows of the batch its cells were read from break the rule.
   *
   * @param row gives for a row, from 0 in the batch, what formulas read
   */
  void check(int rows, Function<Integer, Function<Reference, Value>> row, RowSet broken) {
    if (truths.isPresent()) {
      truths.get().of(rows, verdicts);
    }
    for (int i = 0; i < rows; i++) {
      boolean ask = truths.isEmpty() || verdicts[i] == ASK;
      if (ask ? isBroken(row.apply(i)) : verdicts[i] == FALSE) {
        broken.add(i);
      }
    }
  }

  /** Takes rows, from 0 in a batch. */
  interface RowSet {
    void add(int row);
  }

  private boolean isBroken(Function<Reference, Value> row) {
    try {
      return evaluator.evaluate(tree, row).equals(Value.FALSE);
    } catch (EvaluationException e) {
      return true; // An engine refuses a row whose rule it cannot compute.
    }
  }

  private Truths truths(Expression condition) throws NoStep {
    return switch (condition) {
      case Expression.Literal(Value.Bool bool, var kind, var place) -> always(bool.truth());
      case Expression.FieldRef e -> truthsOf(cells(e));
      case Expression.Not e -> not(truths(e.operand()));
      case Expression.And e -> joined(all(e.operands()), FALSE, false);
      case Expression.Or e -> joined(all(e.operands()), TRUE, false);
      case Expression.Compare e -> compared(e.operator(), e.left(), e.right());
      case Expression.Between e -> between(e);
      case Expression.In e -> in(e);
      case Expression.IsNull e -> isNull(e);
      case Expression.IsTruth e -> isTruth(truths(e.operand()), e.truth(), e.negated());
      default -> throw new NoStep();
    };
  }

  private List<Truths> all(List<Expression> conditions) throws NoStep {
    var steps = new ArrayList<Truths>();
    for (Expression condition : conditions) {
      steps.add(truths(condition));
    }
    return steps;
  }

  private TypedCells cells(Expression.FieldRef e) throws NoStep {
    if (e.to() instanceof OwnField own && cells.containsKey(own.field())) {
      return cells.get(own.field());
    }
    throw new NoStep();
  }

  private static Truths always(boolean truth) {
    byte verdict = truth ? TRUE : FALSE;
    return (rows, out) -> java.util.Arrays.fill(out, 0, rows, verdict);
  }

  private static Truths truthsOf(TypedCells field) throws NoStep {
    if (field.form().filter(form -> form.kind() == Kind.BOOLEAN).isEmpty()) {
      throw new NoStep();
    }
    return (rows, out) -> {
      for (int i = 0; i < rows; i++) {
        out[i] = field.hasValue(i) ? (byte) field.number(i) : UNKNOWN;
      }
    };
  }

  private static Truths not(Truths step) {
    return (rows, out) -> {
      step.of(rows, out);
      for (int i = 0; i < rows; i++) {
        out[i] = out[i] <= TRUE ? (byte) (1 - out[i]) : out[i];
      }
    };
  }

  /**
   * As the evaluator goes: the first operand that decides, or that cannot be told, ends it.
   *
   * @param whole whether one that cannot be told comes before one that decides, wherever it stands
   */
  private Truths joined(List<Truths> steps, byte deciding, boolean whole) {
    byte[] next = new byte[most];
    return (rows, out) -> {
      steps.getFirst().of(rows, out);
      for (Truths step : steps.subList(1, steps.size())) {
        step.of(rows, next);
        for (int i = 0; i < rows; i++) {
          boolean over = out[i] == ASK || (out[i] == deciding && !(whole && next[i] == ASK));
          boolean newer = next[i] == deciding || next[i] == ASK || out[i] != UNKNOWN;
          out[i] = over || !newer ? out[i] : next[i];
        }
      }
    };
  }

  private static Truths isTruth(Truths step, Optional<Boolean> truth, boolean negated) {
    byte wanted = truth.map(t -> t ? TRUE : FALSE).orElse(UNKNOWN);
    return (rows, out) -> {
      step.of(rows, out);
      for (int i = 0; i < rows; i++) {
        out[i] = out[i] == ASK ? ASK : (out[i] == wanted) != negated ? TRUE : FALSE;
      }
    };
  }

  private Truths isNull(Expression.IsNull e) throws NoStep {
    if (!(e.operand() instanceof Expression.FieldRef ref)) {
      throw new NoStep();
    }
    TypedCells field = cells(ref);
    return (rows, out) -> {
      for (int i = 0; i < rows; i++) {
        out[i] = field.hasValue(i) == e.negated() ? TRUE : FALSE;
      }
    };
  }

  private Truths between(Expression.Between e) throws NoStep {
    Truths low = compared(Expression.Comparison.AT_LEAST, e.operand(), e.low());
    Truths high = compared(Expression.Comparison.AT_MOST, e.operand(), e.high());
    Truths within = joined(List.of(low, high), FALSE, true);
    return e.negated() ? not(within) : within;
  }

  private Truths in(Expression.In e) throws NoStep {
    var each = new ArrayList<Truths>();
    for (Expression option : e.options()) {
      each.add(compared(Expression.Comparison.EQUAL, e.operand(), option));
    }
    Truths any = joined(each, TRUE, true);
    return e.negated() ? not(any) : any;
  }

  private Truths compared(Expression.Comparison operator, Expression left, Expression right)
      throws NoStep {
    Optional<TypedCells> text = text(left);
    if (text.isPresent() && right instanceof Expression.Literal(Value.Text t, var k, var p)) {
      return equal(operator, text.get(), t.text());
    }
    return compared(operator, numbers(left), numbers(right));
  }

  private Optional<TypedCells> text(Expression e) throws NoStep {
    return e instanceof Expression.FieldRef ref && cells(ref).isText()
        ? Optional.of(cells(ref))
        : Optional.empty();
  }

  private static Truths equal(Expression.Comparison operator, TypedCells field, String text)
      throws NoStep {
    byte same = operator == Expression.Comparison.EQUAL ? TRUE : FALSE;
    if (same == FALSE && operator != Expression.Comparison.NOT_EQUAL) {
      throw new NoStep();
    }
    return (rows, out) -> {
      for (int i = 0; i < rows; i++) {
        out[i] =
            !field.hasValue(i)
                ? UNKNOWN
                : Slices.equal(field.chars(), field.start(i), field.length(i), text)
                    ? same
                    : (byte) (1 - same);
      }
    };
  }

  private Truths compared(Expression.Comparison operator, Numbers left, Numbers right)
      throws NoStep {
    int scale = Math.max(left.form().scale(), right.form().scale());
    boolean numbers = left.form().isNumber() && right.form().isNumber();
    if (!numbers && left.form().kind() != right.form().kind()) {
      throw new NoStep();
    }
    Numbers one = scaled(left, scale);
    Numbers other = scaled(right, scale);
    long[] ones = new long[most];
    long[] others = new long[most];
    byte[] known = new byte[most];
    return (rows, out) -> {
      one.of(rows, ones, out);
      other.of(rows, others, known);
      for (int i = 0; i < rows; i++) {
        byte both = both(out[i], known[i]);
        out[i] =
            both != TRUE ? both : operator.holds(Long.compare(ones[i], others[i])) ? TRUE : FALSE;
      }
    };
  }

  /** TRUE where there are two numbers; a part that cannot be told comes before NULL. */
  private static byte both(byte one, byte other) {
    return one == ASK || other == ASK ? ASK : one == TRUE ? other : one;
  }

  private static Numbers scaled(Numbers step, int scale) {
    long factor = LongForm.power(scale - step.form().scale());
    return factor == 1
        ? step
        : each(step.form(), step, (number) -> Math.multiplyExact(number, factor));
  }

  /** A computation of one number; where it throws, the evaluator is asked. */
  private interface Computation {
    long of(long number);
  }

  private static Numbers each(LongForm form, Numbers step, Computation computation) {
    return new Numbers() {
      @Override
      public LongForm form() {
        return form;
      }

      @Override
      public void of(int rows, long[] out, byte[] known) {
        step.of(rows, out, known);
        for (int i = 0; i < rows; i++) {
          if (known[i] == TRUE) {
            try {
              out[i] = computation.of(out[i]);
            } catch (ArithmeticException beyond) {
              known[i] = ASK;
            }
          }
        }
      }
    };
  }

  private Numbers numbers(Expression e) throws NoStep {
    return switch (e) {
      case Expression.Literal literal -> constant(literal.value());
      case Expression.Now now when now.kind() == Kind.DATE ->
          constant(evaluator.evaluate(now, reference -> Value.NULL));
      case Expression.FieldRef ref -> numbersOf(cells(ref));
      case Expression.Fitting fitting -> fitting(fitting);
      case Expression.Negate negate -> {
        Numbers operand = numbers(negate.operand());
        yield each(operand.form(), operand, Math::negateExact);
      }
      case Expression.Compute compute -> computed(compute);
      case Expression.Shift shift -> shifted(shift);
      case Expression.StartOfDay start -> {
        LongForm moments = form(Kind.DATE_TIME);
        yield each(moments, numbers(start.date()), days -> days * MICROS_A_DAY);
      }
      default -> throw new NoStep();
    };
  }

  private static final long MICROS_A_DAY = 86_400_000_000L;

  private static LongForm form(Kind kind) {
    return new LongForm(kind, 0, 0, joiner.expression.Width.BITS_64);
  }

  private static Numbers constant(Value value) throws NoStep {
    LongForm form =
        switch (value) {
          case Value.Num num when num.number().scale() <= 6 && num.number().precision() < 17 ->
              new LongForm(
                  Kind.NUMBER,
                  Math.max(num.number().scale(), 0),
                  0,
                  joiner.expression.Width.BITS_64);
          case Value.Date date -> form(Kind.DATE);
          case Value.DateTime moment -> form(Kind.DATE_TIME);
          case Value.Time time -> form(Kind.TIME);
          default -> throw new NoStep();
        };
    OptionalLong number = form.of(value);
    if (number.isEmpty()) {
      throw new NoStep();
    }
    return new Numbers() {
      @Override
      public LongForm form() {
        return form;
      }

      @Override
      public void of(int rows, long[] out, byte[] known) {
        java.util.Arrays.fill(out, 0, rows, number.getAsLong());
        java.util.Arrays.fill(known, 0, rows, TRUE);
      }
    };
  }

  private static Numbers numbersOf(TypedCells field) throws NoStep {
    LongForm form = field.form().orElseThrow(NoStep::new);
    if (form.scale() > 6) {
      throw new NoStep();
    }
    return new Numbers() {
      @Override
      public LongForm form() {
        return form;
      }

      @Override
      public void of(int rows, long[] out, byte[] known) {
        for (int i = 0; i < rows; i++) {
          out[i] = field.number(i);
          known[i] =
              switch (field.state(i)) {
                case TypedCells.PLAIN -> TRUE;
                case TypedCells.APART -> ASK;
                default -> UNKNOWN;
              };
        }
      }
    };
  }

  /** A number beyond its width is asked for, for it stops the row. */
  private Numbers fitting(Expression.Fitting e) throws NoStep {
    Numbers operand = numbers(e.operand());
    if (operand.form().scale() != 0) {
      throw new NoStep();
    }
    return each(
        LongForm.whole(e.width()),
        operand,
        number -> {
          if (number < e.width().min() || number > e.width().max()) {
            throw new ArithmeticException();
          }
          return number;
        });
  }

  private Numbers computed(Expression.Compute e) throws NoStep {
    Numbers left = numbers(e.left());
    Numbers right = numbers(e.right());
    boolean scaled = left.form().scale() != 0 || right.form().scale() != 0;
    if (scaled || !left.form().isNumber() || !right.form().isNumber()) {
      throw new NoStep();
    }
    long[] others = new long[most];
    byte[] know = new byte[most];
    LongForm form = LongForm.whole(joiner.expression.Width.BITS_64);
    if (e.operator() == Expression.Arithmetic.DIVIDE) {
      throw new NoStep();
    }
    return new Numbers() {
      @Override
      public LongForm form() {
        return form;
      }

      @Override
      public void of(int rows, long[] out, byte[] known) {
        left.of(rows, out, known);
        right.of(rows, others, know);
        for (int i = 0; i < rows; i++) {
          known[i] = both(known[i], know[i]);
          if (known[i] == TRUE) {
            try {
              out[i] = compute(e.operator(), out[i], others[i]);
            } catch (ArithmeticException beyond) {
              known[i] = ASK;
            }
          }
        }
      }
    };
  }

  private static long compute(Expression.Arithmetic operator, long one, long other) {
    return switch (operator) {
      case PLUS -> Math.addExact(one, other);
      case MINUS -> Math.subtractExact(one, other);
      case TIMES -> Math.multiplyExact(one, other);
      case DIVIDE -> throw new ArithmeticException();
    };
  }

  /** Whole days for dates, seconds and days for moments; months have no fixed length. */
  private Numbers shifted(Expression.Shift e) throws NoStep {
    var period = e.interval().period();
    boolean fixed = period.toTotalMonths() == 0 && e.interval().duration().toNanosPart() == 0;
    if (!fixed || (e.kind() != Kind.DATE && e.kind() != Kind.DATE_TIME)) {
      throw new NoStep();
    }
    long days = period.getDays();
    long by =
        e.kind() == Kind.DATE
            ? days + e.interval().duration().toDays()
            : days * MICROS_A_DAY + e.interval().duration().toSeconds() * 1_000_000;
    long signed = e.back() ? -by : by;
    long last = form(e.kind()).of(lastOf(e.kind())).orElseThrow();
    return each(
        form(e.kind()),
        numbers(e.moment()),
        moment -> {
          long to = Math.addExact(moment, signed);
          if (to > last || to < -last) {
            throw new ArithmeticException(); // Near the end of the calendar the evaluator tells.
          }
          return to;
        });
  }

  private static Value lastOf(Kind kind) {
    return kind == Kind.DATE
        ? new Value.Date(java.time.LocalDate.of(3939, 1, 1))
        : new Value.DateTime(java.time.LocalDateTime.of(3939, 1, 1, 0, 0));
  }
}
