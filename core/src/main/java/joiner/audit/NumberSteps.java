package joiner.audit;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.Map;
import java.util.OptionalLong;
import java.util.function.LongUnaryOperator;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.model.FieldId;
import joiner.model.OwnField;

/**
 * Makes the numbers, dates and moments of a rule ready for a batch of rows: each expression becomes
 * a step that fills a column of 64-bit numbers. Where a number of a row cannot be told in 64 bits,
 * the step says so, and the row is asked of the evaluator.
 */
final class NumberSteps {
  static final byte FALSE = 0;
  static final byte TRUE = 1;
  static final byte UNKNOWN = 2;

  /** The evaluator is to be asked. */
  static final byte ASK = 3;

  private final Map<FieldId, TypedCells> cells;
  private final Evaluator evaluator;
  private final int most;

  /** A part of a rule that is no step. */
  static final class NoStep extends Exception {
    private static final long serialVersionUID = 1L;

    NoStep() {
      super(null, null, false, false);
    }
  }

  /** Puts numbers, and beside them TRUE where there is one, UNKNOWN for NULL, or ASK. */
  interface Fill {
    void of(int rows, long[] out, byte[] known);
  }

  /** A step that gives a number in some form for each row. */
  record Numbers(LongForm form, Fill fill) {

    /** The same numbers with more digits after the point. */
    Numbers scaled(int scale) {
      long factor = LongForm.power(scale - form.scale());
      return factor == 1 ? this : each(form, number -> Math.multiplyExact(number, factor));
    }

    /** A number of each; where the computation throws, the evaluator is asked. */
    private Numbers each(LongForm result, LongUnaryOperator computation) {
      return new Numbers(
          result,
          (rows, out, known) -> {
            fill.of(rows, out, known);
            for (int i = 0; i < rows; i++) {
              if (known[i] == TRUE) {
                try {
                  out[i] = computation.applyAsLong(out[i]);
                } catch (ArithmeticException beyond) {
                  known[i] = ASK;
                }
              }
            }
          });
    }
  }

  /**
   * Steps over the cells of a batch.
   *
   * @param cells of the fields a rule reads
   * @param evaluator tells today's date
   * @param most how many rows a batch has
   */
  NumberSteps(Map<FieldId, TypedCells> cells, Evaluator evaluator, int most) {
    this.cells = cells;
    this.evaluator = evaluator;
    this.most = most;
  }

  /** The cells of a field of the rule's own table. */
  TypedCells cells(Expression.FieldRef e) throws NoStep {
    if (e.to() instanceof OwnField own && cells.containsKey(own.field())) {
      return cells.get(own.field());
    }
    throw new NoStep();
  }

  /** TRUE where there are two numbers; a part that cannot be told comes before NULL. */
  static byte both(byte one, byte other) {
    return one == ASK || other == ASK ? ASK : one == TRUE ? other : one;
  }

  /** The numbers of an expression. */
  Numbers of(Expression e) throws NoStep {
    return switch (e) {
      case Expression.Literal literal -> constant(literal.value());
      case Expression.Now now when now.kind() == Kind.DATE ->
          constant(evaluator.evaluate(now, reference -> Value.NULL));
      case Expression.FieldRef ref -> numbersOf(cells(ref));
      case Expression.Fitting fitting -> fitting(fitting);
      case Expression.Negate negate -> {
        Numbers operand = of(negate.operand());
        yield operand.each(operand.form(), Math::negateExact);
      }
      case Expression.Compute compute -> computed(compute);
      case Expression.Shift shift -> shifted(shift);
      case Expression.StartOfDay start -> {
        LongForm moments = LongForm.of(Kind.DATE_TIME);
        yield of(start.date()).each(moments, days -> days * LongForm.MICROS_A_DAY);
      }
      default -> throw new NoStep();
    };
  }

  private static Numbers constant(Value value) throws NoStep {
    LongForm form =
        switch (value) {
          case Value.Num num when num.number().scale() <= 6 && num.number().precision() < 17 ->
              new LongForm(Kind.NUMBER, Math.max(num.number().scale(), 0), 0, Width.BITS_64);
          case Value.Date date -> LongForm.of(Kind.DATE);
          case Value.DateTime moment -> LongForm.of(Kind.DATE_TIME);
          case Value.Time time -> LongForm.of(Kind.TIME);
          default -> throw new NoStep();
        };
    OptionalLong number = form.of(value);
    if (number.isEmpty()) {
      throw new NoStep();
    }
    return new Numbers(
        form,
        (rows, out, known) -> {
          Arrays.fill(out, 0, rows, number.getAsLong());
          Arrays.fill(known, 0, rows, TRUE);
        });
  }

  private static Numbers numbersOf(TypedCells field) throws NoStep {
    LongForm form = field.form().orElseThrow(NoStep::new);
    if (form.scale() > 6) {
      throw new NoStep();
    }
    return new Numbers(
        form,
        (rows, out, known) -> {
          for (int i = 0; i < rows; i++) {
            out[i] = field.number(i);
            known[i] =
                switch (field.state(i)) {
                  case TypedCells.PLAIN -> TRUE;
                  case TypedCells.APART -> ASK;
                  default -> UNKNOWN;
                };
          }
        });
  }

  /** A number beyond its width is asked for, for it stops the row. */
  private Numbers fitting(Expression.Fitting e) throws NoStep {
    Numbers operand = of(e.operand());
    if (operand.form().scale() != 0) {
      throw new NoStep();
    }
    return operand.each(
        LongForm.whole(e.width()),
        number -> {
          if (number < e.width().min() || number > e.width().max()) {
            throw new ArithmeticException();
          }
          return number;
        });
  }

  private Numbers computed(Expression.Compute e) throws NoStep {
    Numbers left = of(e.left());
    Numbers right = of(e.right());
    boolean scaled = left.form().scale() != 0 || right.form().scale() != 0;
    boolean divided = e.operator() == Expression.Arithmetic.DIVIDE;
    if (divided || scaled || !left.form().isNumber() || !right.form().isNumber()) {
      throw new NoStep();
    }
    long[] others = new long[most];
    byte[] know = new byte[most];
    LongForm form = LongForm.whole(Width.BITS_64);
    return new Numbers(
        form,
        (rows, out, known) -> {
          left.fill().of(rows, out, known);
          right.fill().of(rows, others, know);
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
        });
  }

  private static long compute(Expression.Arithmetic operator, long one, long other) {
    return switch (operator) {
      case PLUS -> Math.addExact(one, other);
      case MINUS -> Math.subtractExact(one, other);
      case TIMES -> Math.multiplyExact(one, other);
      case DIVIDE -> throw new ArithmeticException();
    };
  }

  /**
   * Whole days for dates, seconds and days for moments; months have no fixed length. Near the end
   * of the calendar the evaluator is asked.
   */
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
            : days * LongForm.MICROS_A_DAY + e.interval().duration().toSeconds() * 1_000_000;
    long signed = e.back() ? -by : by;
    long last = LongForm.of(e.kind()).of(lastOf(e.kind())).orElseThrow();
    return of(e.moment())
        .each(
            LongForm.of(e.kind()),
            moment -> {
              long to = Math.addExact(moment, signed);
              if (to > last || to < -last) {
                throw new ArithmeticException();
              }
              return to;
            });
  }

  private static Value lastOf(Kind kind) {
    return kind == Kind.DATE
        ? new Value.Date(LocalDate.of(3939, 1, 1))
        : new Value.DateTime(LocalDateTime.of(3939, 1, 1, 0, 0));
  }
}
