package joiner.expression;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import joiner.Formulas;
import joiner.Pottery;
import joiner.RandomRules;
import joiner.Tries;
import joiner.expression.Expression.Comparison;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.rows.RowValues;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class KernelTest {
  private static final int ROWS = 12;
  private static final Table TABLE = RandomRules.table();

  private static Expression sound(String text) {
    return ((Checked.Sound) Formulas.condition(text, TABLE)).tree();
  }

  /** Every generated rule decides every row as its kernel form does, which is one already. */
  @Test
  void theKernelFormDecidesAsTheRule() {
    var evaluator = new Evaluator(Pottery.CLOCK);
    int compared = 0;
    for (long seed : Tries.of(60).toArray()) {
      var rules = new RandomRules(seed);
      Draft draft = rules.draft(ROWS);
      var values = new RowValues(TABLE, draft.rows().of(TABLE.id()));
      for (String text : rules.conditions(30)) {
        if (Formulas.condition(text, TABLE) instanceof Checked.Sound rule) {
          Expression kernel = Kernel.of(rule.tree());
          assertThat(Kernel.of(kernel)).as(text).isEqualTo(kernel);
          assertIsKernel(kernel);
          for (int row = 0; row < ROWS; row++) {
            Optional<Value> one = value(evaluator, rule.tree(), values.row(row));
            Optional<Value> other = value(evaluator, kernel, values.row(row));
            if (one.isPresent() && other.isPresent()) {
              assertThat(other).as(text).isEqualTo(one);
              compared++;
            }
          }
        }
      }
    }
    assertThat(compared).isPositive();
  }

  private static Optional<Value> value(
      Evaluator evaluator, Expression tree, Function<Reference, Value> row) {
    try {
      return Optional.of(evaluator.evaluate(tree, row));
    } catch (EvaluationException e) {
      return Optional.empty(); // In which order parts are computed is open.
    }
  }

  private static void assertIsKernel(Expression tree) {
    boolean variant =
        switch (tree) {
          case Expression.Between e -> true;
          case Expression.In e -> true;
          case Expression.CodePoints e -> true;
          case Expression.Not e ->
              e.operand() instanceof Expression.Compare
                  || e.operand() instanceof Expression.And
                  || e.operand() instanceof Expression.Or;
          case Expression.Compare e ->
              e.operator() == Comparison.GREATER || e.operator() == Comparison.AT_LEAST;
          case Expression.Case e -> e.operand().isPresent();
          default -> false;
        };
    assertThat(variant).as(tree.toString()).isFalse();
    tree.parts().forEach(KernelTest::assertIsKernel);
  }

  /** A rule said otherwise, in any of the ways there are, has the same kernel form. */
  @Test
  void whatIsSaidOtherwiseHasTheSameKernelForm() {
    for (long seed : Tries.of(60).toArray()) {
      var random = new Random(seed);
      for (String text : new RandomRules(seed).conditions(20)) {
        if (Formulas.condition(text, TABLE) instanceof Checked.Sound rule) {
          Expression other = otherwise(rule.tree(), random);
          assertThat(Kernel.same(rule.tree(), other)).as(text).isTrue();
        }
      }
    }
  }

  private static Expression otherwise(Expression tree, Random random) {
    Expression same = tree.withParts(part -> otherwise(part, random));
    return switch (same) {
      case Expression.And e -> {
        var operands = new ArrayList<>(e.operands());
        Collections.shuffle(operands, random);
        operands.add(operands.getFirst());
        List<Expression> not =
            operands.stream().<Expression>map(o -> new Expression.Not(o, Place.NOWHERE)).toList();
        yield random.nextBoolean()
            ? new Expression.And(operands, Place.NOWHERE)
            : new Expression.Not(new Expression.Or(not, Place.NOWHERE), Place.NOWHERE);
      }
      case Expression.Compare(var operator, var left, var right, var place) ->
          random.nextBoolean() ? turned(operator, left, right) : same;
      case Expression.Between(var operand, var low, var high, var negated, var place) -> {
        Expression ends =
            new Expression.And(
                List.of(
                    new Expression.Compare(Comparison.AT_LEAST, operand, low, place),
                    new Expression.Compare(Comparison.AT_MOST, operand, high, place)),
                place);
        yield negated ? new Expression.Not(ends, place) : ends;
      }
      case Expression.IsNull(var operand, var negated, var place) ->
          new Expression.Not(new Expression.IsNull(operand, !negated, place), place);
      default -> same;
    };
  }

  private static Expression turned(Comparison operator, Expression left, Expression right) {
    Comparison back =
        switch (operator) {
          case EQUAL, NOT_EQUAL -> operator;
          case LESS -> Comparison.GREATER;
          case AT_MOST -> Comparison.AT_LEAST;
          case GREATER -> Comparison.LESS;
          case AT_LEAST -> Comparison.AT_MOST;
        };
    return new Expression.Compare(back, right, left, Place.NOWHERE);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          whole BETWEEN 1 AND 5 | 5.00 >= whole AND whole >= 1
          whole NOT BETWEEN 1 AND 5 | whole < 1 OR whole > 5
          kiln IN ('a', 'b') | kiln = 'b' OR 'a' = kiln
          kiln NOT IN ('a', 'b') | NOT (kiln = 'b' OR kiln = 'a')
          NOT (whole > 1 AND kiln IS NULL) | kiln IS NOT NULL OR whole <= 1
          COALESCE(whole, 3) > 1 | CASE WHEN whole IS NOT NULL THEN whole ELSE 3 END > 1
          NULLIF(whole, 3) > 1 | CASE WHEN 3 = whole THEN NULL ELSE whole END > 1
          CASE whole WHEN 1 THEN TRUE END | CASE WHEN whole = 1 THEN TRUE END
          NOT NOT glazed | glazed
          whole > -1 AND (small > 2 AND big > 3) | big > 3 AND small > 2 AND -1 < whole
          """)
  void oneMeaningHasOneForm(String one, String other) {
    assertThat(Kernel.of(sound(one))).isEqualTo(Kernel.of(sound(other)));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          whole > 1 | whole >= 1
          whole > 1 | small > 1
          whole > 1 AND small > 1 | whole > 1 OR small > 1
          kiln LIKE 'a%' | kiln NOT LIKE 'a%'
          kiln = 'a' | kiln = 'A'
          glazed IS TRUE | glazed IS NOT FALSE
          whole - small > 0 | small - whole > 0
          """)
  void differentMeaningsHaveDifferentForms(String one, String other) {
    assertThat(Kernel.same(sound(one), sound(other))).isFalse();
  }
}
