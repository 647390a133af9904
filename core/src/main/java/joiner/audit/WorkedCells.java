package joiner.audit;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.TableId;

/**
 * The cells of a computed field, worked out row by row; values that rows come with all the same are
 * compared with what they should be.
 */
final class WorkedCells {
  private final TableId table;
  private final TypedCells cells;
  private final Optional<Expression> tree;
  private final Evaluator evaluator;
  private final Broken differing;
  private final Broken failed;

  /** What the first row holds and what it should hold. */
  private record Difference(String given, String worked) {}

  /**
   * Works out the cells of a field.
   *
   * @param formula what it is worked out by; where that is faulty nothing is
   */
  WorkedCells(TableId table, TypedCells cells, Checked formula, Clock clock, int mostRows) {
    this.table = table;
    this.cells = cells;
    this.tree =
        formula instanceof Checked.Sound sound ? Optional.of(sound.tree()) : Optional.empty();
    this.evaluator = new Evaluator(clock);
    this.differing = new Broken(mostRows);
    this.failed = new Broken(mostRows);
  }

  /**
   * Works out so many rows, whose own cells were read.
   *
   * @param first the number of the first of them, from 0
   * @param row gives for a row, from 0 in the batch, what formulas read
   */
  void work(int rows, int first, IntFunction<Function<Reference, Value>> row) {
    for (int i = 0; i < rows; i++) {
      cells.put(i, tree.isPresent() ? worked(tree.get(), i, first + i, row.apply(i)) : Value.NULL);
    }
  }

  private Value worked(Expression by, int at, int number, Function<Reference, Value> row) {
    Value worked;
    try {
      worked = evaluator.evaluate(by, row);
    } catch (EvaluationException e) {
      failed.add(number, e::getMessage);
      return Value.NULL;
    }
    boolean differs = cells.isFilled(at) && !(cells.hasValue(at) && cells.value(at).equals(worked));
    if (differs) {
      differing.add(number, () -> new Difference(cells.given(at), Evaluator.show(worked)));
    }
    return worked;
  }

  /** What was found. */
  List<Violation> found() {
    return Stream.of(
            violation(differing, "", () -> says((Difference) differing.example())),
            violation(failed, " by value", () -> cannot((String) failed.example())))
        .flatMap(Optional::stream)
        .toList();
  }

  private Optional<Violation> violation(Broken broken, String which, Supplier<String> says) {
    if (broken.isEmpty()) {
      return Optional.empty();
    }
    List<Integer> rows = broken.numbers();
    Field field = cells.field();
    return Optional.of(
        new Violation(
            Violation.Kind.COMPUTED,
            table,
            List.of(field.id()),
            "computed" + which + " of " + field.name(),
            broken.count(),
            rows,
            Sentences.rows(rows, broken.count()) + says.get()));
  }

  private String says(Difference found) {
    return ": "
        + cells.field().label()
        + " holds “"
        + found.given
        + "” where it is worked out as “"
        + found.worked
        + "”.";
  }

  private String cannot(String why) {
    return ": " + cells.field().label() + " cannot be worked out: " + why + ".";
  }
}
