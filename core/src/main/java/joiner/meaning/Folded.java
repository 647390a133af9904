package joiner.meaning;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.Summed;

/**
 * What comes of the rows that refer to one, as SQL's set functions have it (ISO/IEC 9075-2,
 * subclause 10.9): rows without a value are passed over, and where none is left there is no value;
 * a count is 0 then. Linear in the rows, log-linear where texts are joined in order.
 */
final class Folded {
  private Folded() {}

  /** A row's value and what puts it in order. */
  private record Placed(Value order, Value value) {}

  /**
   * Folds rows.
   *
   * @param rows each as the formulas of its table read it
   * @throws EvaluationException where a value cannot be worked out, or a sum is too great
   */
  static Value of(Summed summed, List<Function<Reference, Value>> rows, Evaluator evaluator) {
    long count = 0;
    var values = new ArrayList<Placed>();
    for (Function<Reference, Value> row : rows) {
      boolean counts =
          summed.where().isEmpty()
              || evaluator.evaluate(summed.where().get(), row).equals(Value.TRUE);
      if (counts) {
        count++;
        Value value = evaluate(summed.of(), row, evaluator);
        if (value != Value.NULL) {
          values.add(new Placed(evaluate(summed.by(), row, evaluator), value));
        }
      }
    }
    if (summed.fold() == Summed.Fold.COUNT) {
      return Value.whole(count);
    }
    return values.isEmpty() ? Value.NULL : fold(summed, values);
  }

  private static Value evaluate(
      Optional<Expression> tree, Function<Reference, Value> row, Evaluator evaluator) {
    return tree.map(t -> evaluator.evaluate(t, row)).orElse(Value.NULL);
  }

  private static Value fold(Summed summed, List<Placed> values) {
    return switch (summed.fold()) {
      case COUNT -> throw new IllegalArgumentException("a count has no values");
      case SUM -> sum(values, summed.type().kind() == Kind.WHOLE);
      case LEAST -> values.stream().map(Placed::value).min(Evaluator::order).orElseThrow();
      case GREATEST -> values.stream().map(Placed::value).max(Evaluator::order).orElseThrow();
      case JOINED ->
          new Value.Text(
              values.stream()
                  .sorted(ORDER)
                  .map(placed -> ((Value.Text) placed.value).text())
                  .collect(Collectors.joining(summed.between())));
    };
  }

  private static final Comparator<Placed> ORDER =
      Comparator.comparing(
              Placed::order,
              Comparator.comparing((Value order) -> order == Value.NULL)
                  .thenComparing(
                      (one, other) -> one == Value.NULL ? 0 : Evaluator.order(one, other)))
          .thenComparing(Placed::value, Evaluator::order);

  private static Value sum(List<Placed> values, boolean whole) {
    BigDecimal sum = BigDecimal.ZERO;
    for (Placed placed : values) {
      sum = sum.add(((Value.Num) placed.value).number());
    }
    if (whole && sum.toBigInteger().bitLength() >= Long.SIZE) {
      throw new EvaluationException("the sum leaves the whole numbers of 64 bits");
    }
    return new Value.Num(sum, whole);
  }
}
