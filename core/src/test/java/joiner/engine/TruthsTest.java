package joiner.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.function.Function;
import joiner.Formulas;
import joiner.RandomRules;
import joiner.Tries;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.rows.RowValues;
import org.junit.jupiter.api.Test;

/** Expressions without truth values say what they said with them. */
class TruthsTest {
  private static final int ROWS = 12;

  private final Evaluator evaluator = new Evaluator(Clock.systemUTC());

  private static Value asNumber(Value value) {
    return value instanceof Value.Bool bool
        ? new Value.Num(bool.truth() ? BigDecimal.ONE : BigDecimal.ZERO, true)
        : value;
  }

  private static Function<Reference, Value> asNumbers(Function<Reference, Value> row) {
    return row.andThen(TruthsTest::asNumber);
  }

  /** A law over generated rules: a condition holds where it held, a value is the number for it. */
  @Test
  void nothingIsSaidOtherwise() {
    int compared = 0;
    Table table = RandomRules.table();
    for (long seed : Tries.of(30).toArray()) {
      var rules = new RandomRules(seed);
      Draft draft = rules.draft(ROWS);
      var values = new RowValues(table, draft.rows().of(table.id()));
      for (String text : rules.conditions(30)) {
        if (Formulas.condition(text, table) instanceof Checked.Sound rule) {
          Expression condition = Truths.condition(rule.tree());
          Expression value = Truths.value(rule.tree());
          assertForm(condition, true);
          assertForm(value, false);
          for (int row = 0; row < ROWS; row++) {
            compared += compare(rule.tree(), condition, value, values.row(row), text) ? 1 : 0;
          }
        }
      }
    }
    assertThat(compared).isPositive();
  }

  private boolean compare(
      Expression tree,
      Expression condition,
      Expression value,
      Function<Reference, Value> row,
      String text) {
    Value expected;
    try {
      expected = evaluator.evaluate(tree, row);
    } catch (EvaluationException e) {
      return false;
    }
    try {
      assertThat(evaluator.evaluate(condition, asNumbers(row))).as(text).isEqualTo(expected);
      assertThat(evaluator.evaluate(value, asNumbers(row))).as(text).isEqualTo(asNumber(expected));
    } catch (EvaluationException e) {
      return false; // The order in which parts are computed is left to the engine.
    }
    return true;
  }

  /** Conditions stand where conditions may, values elsewhere, and no truth is written out. */
  private static void assertForm(Expression tree, boolean wanted) {
    boolean isCondition =
        switch (tree) {
          case Expression.Not e -> true;
          case Expression.And e -> true;
          case Expression.Or e -> true;
          case Expression.Compare e -> true;
          case Expression.Between e -> true;
          case Expression.In e -> true;
          case Expression.Like e -> true;
          case Expression.IsNull e -> true;
          case Expression.IsTruth e -> throw new AssertionError("no engine without truths has it");
          case Expression.Literal e -> {
            assertThat(e.value()).isNotInstanceOf(Value.Bool.class);
            yield false;
          }
          default -> false;
        };
    assertThat(isCondition).as("%s", tree).isEqualTo(wanted);
    switch (tree) {
      case Expression.Not e -> assertForm(e.operand(), true);
      case Expression.And e -> e.operands().forEach(part -> assertForm(part, true));
      case Expression.Or e -> e.operands().forEach(part -> assertForm(part, true));
      case Expression.Case e when e.operand().isEmpty() -> {
        e.whens().forEach(when -> assertForm(when.condition(), true));
        e.whens().forEach(when -> assertForm(when.result(), false));
        e.otherwise().ifPresent(part -> assertForm(part, false));
      }
      default -> tree.parts().forEach(part -> assertForm(part, false));
    }
  }

  @Test
  void aTruthWrittenOutIsACondition() {
    var yes = new Expression.Literal(Value.TRUE, Kind.BOOLEAN, joiner.expression.Place.NOWHERE);
    assertThat(Dialects.ORACLE.sayCondition(yes)).isEqualTo(new Support.Kept("1 = 1"));
    assertThat(Dialects.SQL_SERVER.say(yes)).isEqualTo(new Support.Kept("1"));
  }
}
