package joiner.audit;

import static joiner.audit.NumberSteps.ASK;
import static joiner.audit.NumberSteps.FALSE;
import static joiner.audit.NumberSteps.TRUE;
import static joiner.audit.NumberSteps.UNKNOWN;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.IntConsumer;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.FieldId;

/**
 * A rule made ready for many rows: whole columns of numbers, truths and texts are compared at once
 * where the rule can be taken apart into such steps. A row for which a step cannot tell, as where a
 * sum leaves 64 bits, is asked of the evaluator, and so is every row where the rule has a part that
 * is no such step; so the verdict is always the evaluator's.
 */
final class RuleProgram {
  private final Expression tree;
  private final Evaluator evaluator;
  private final Optional<Truths> truths;
  private final int most;
  private final NumberSteps numbers;
  private final byte[] verdicts;

  /** A step that gives a truth for each row. */
  private interface Truths {
    void of(int rows, byte[] out);
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
    this.evaluator = new Evaluator(clock);
    this.numbers = new NumberSteps(cells, evaluator, most);
    this.truths = steps(tree);
  }

  private Optional<Truths> steps(Expression condition) {
    try {
      return Optional.of(truths(condition));
    } catch (NumberSteps.NoStep none) {
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
   * @param broken takes those rows, from 0 in the batch
   */
  void check(int rows, Function<Integer, Function<Reference, Value>> row, IntConsumer broken) {
    if (truths.isPresent()) {
      truths.get().of(rows, verdicts);
    }
    for (int i = 0; i < rows; i++) {
      boolean ask = truths.isEmpty() || verdicts[i] == ASK;
      if (ask ? isBroken(row.apply(i)) : verdicts[i] == FALSE) {
        broken.accept(i);
      }
    }
  }

  private boolean isBroken(Function<Reference, Value> row) {
    try {
      return evaluator.evaluate(tree, row).equals(Value.FALSE);
    } catch (EvaluationException e) {
      return true; // An engine refuses a row whose rule it cannot compute.
    }
  }

  private Truths truths(Expression condition) throws NumberSteps.NoStep {
    return switch (condition) {
      case Expression.Literal(Value.Bool bool, var kind, var place) -> always(bool.truth());
      case Expression.FieldRef e -> truthsOf(numbers.cells(e));
      case Expression.Not e -> not(truths(e.operand()));
      case Expression.And e -> joined(all(e.operands()), FALSE, false);
      case Expression.Or e -> joined(all(e.operands()), TRUE, false);
      case Expression.Compare e -> compared(e.operator(), e.left(), e.right());
      case Expression.Between e -> between(e);
      case Expression.In e -> in(e);
      case Expression.IsNull e -> isNull(e);
      case Expression.IsTruth e -> isTruth(truths(e.operand()), e.truth(), e.negated());
      default -> throw new NumberSteps.NoStep();
    };
  }

  private List<Truths> all(List<Expression> conditions) throws NumberSteps.NoStep {
    var steps = new ArrayList<Truths>();
    for (Expression condition : conditions) {
      steps.add(truths(condition));
    }
    return steps;
  }

  private static Truths always(boolean truth) {
    byte verdict = truth ? TRUE : FALSE;
    return (rows, out) -> Arrays.fill(out, 0, rows, verdict);
  }

  private static Truths truthsOf(TypedCells field) throws NumberSteps.NoStep {
    if (field.form().filter(form -> form.kind() == Kind.BOOLEAN).isEmpty()) {
      throw new NumberSteps.NoStep();
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

  private Truths isNull(Expression.IsNull e) throws NumberSteps.NoStep {
    if (!(e.operand() instanceof Expression.FieldRef ref)) {
      throw new NumberSteps.NoStep();
    }
    TypedCells field = numbers.cells(ref);
    return (rows, out) -> {
      for (int i = 0; i < rows; i++) {
        out[i] = field.hasValue(i) == e.negated() ? TRUE : FALSE;
      }
    };
  }

  private Truths between(Expression.Between e) throws NumberSteps.NoStep {
    Truths low = compared(Expression.Comparison.AT_LEAST, e.operand(), e.low());
    Truths high = compared(Expression.Comparison.AT_MOST, e.operand(), e.high());
    Truths within = joined(List.of(low, high), FALSE, true);
    return e.negated() ? not(within) : within;
  }

  private Truths in(Expression.In e) throws NumberSteps.NoStep {
    var each = new ArrayList<Truths>();
    for (Expression option : e.options()) {
      each.add(compared(Expression.Comparison.EQUAL, e.operand(), option));
    }
    Truths any = joined(each, TRUE, true);
    return e.negated() ? not(any) : any;
  }

  private Truths compared(Expression.Comparison operator, Expression left, Expression right)
      throws NumberSteps.NoStep {
    Optional<TypedCells> text = text(left);
    if (text.isPresent() && right instanceof Expression.Literal(Value.Text t, var k, var p)) {
      return equal(operator, text.get(), t.text());
    }
    return compared(operator, numbers.of(left), numbers.of(right));
  }

  private Optional<TypedCells> text(Expression e) throws NumberSteps.NoStep {
    return e instanceof Expression.FieldRef ref && numbers.cells(ref).isText()
        ? Optional.of(numbers.cells(ref))
        : Optional.empty();
  }

  private static Truths equal(Expression.Comparison operator, TypedCells field, String text)
      throws NumberSteps.NoStep {
    byte same = operator == Expression.Comparison.EQUAL ? TRUE : FALSE;
    if (same == FALSE && operator != Expression.Comparison.NOT_EQUAL) {
      throw new NumberSteps.NoStep();
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

  private Truths compared(
      Expression.Comparison operator, NumberSteps.Numbers left, NumberSteps.Numbers right)
      throws NumberSteps.NoStep {
    int scale = Math.max(left.form().scale(), right.form().scale());
    boolean both = left.form().isNumber() && right.form().isNumber();
    if (!both && left.form().kind() != right.form().kind()) {
      throw new NumberSteps.NoStep();
    }
    NumberSteps.Numbers one = left.scaled(scale);
    NumberSteps.Numbers other = right.scaled(scale);
    long[] ones = new long[most];
    long[] others = new long[most];
    byte[] known = new byte[most];
    return (rows, out) -> {
      one.fill().of(rows, ones, out);
      other.fill().of(rows, others, known);
      for (int i = 0; i < rows; i++) {
        byte told = NumberSteps.both(out[i], known[i]);
        out[i] =
            told != TRUE ? told : operator.holds(Long.compare(ones[i], others[i])) ? TRUE : FALSE;
      }
    };
  }
}
