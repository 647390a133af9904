package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.List;
import joiner.desktop.work.Workbench;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.model.Table;
import joiner.rows.RowLabels;
import joiner.rows.RowValues;
import joiner.rows.Rows;

/**
 * A rule tried on the sample rows.
 *
 * @param passing how many rows pass
 * @param refused how many are refused
 * @param passingExamples a few rows that pass, by what the rule looks at
 * @param refusedExamples a few that are refused
 */
record RuleTrial(
    int passing, int refused, List<String> passingExamples, List<String> refusedExamples) {
  private static final int EXAMPLES = 2;

  static RuleTrial of(Workbench bench, Table table, Checked.Sound rule) {
    Rows rows = bench.draft().rows().of(table.id());
    var values = new RowValues(table, rows);
    var labels = new RowLabels(table, rows, bench.clock());
    var evaluator = new Evaluator(bench.clock());
    var passing = new ArrayList<String>();
    var refused = new ArrayList<String>();
    int passed = 0;
    for (int row = 0; row < rows.count(); row++) {
      boolean passes = passes(evaluator, rule, values, row);
      passed += passes ? 1 : 0;
      List<String> examples = passes ? passing : refused;
      if (examples.size() < EXAMPLES) {
        examples.add(labels.of(row) + ": " + seen(rule, values, row));
      }
    }
    return new RuleTrial(passed, rows.count() - passed, passing, refused);
  }

  private static boolean passes(
      Evaluator evaluator, Checked.Sound rule, RowValues values, int row) {
    try {
      return !evaluator.evaluate(rule.tree(), values.row(row)).equals(Value.FALSE);
    } catch (EvaluationException e) {
      return false;
    }
  }

  private static String seen(Checked.Sound rule, RowValues values, int row) {
    return String.join(
        " · ",
        rule.fields().stream()
            .map(field -> values.row(row).apply(field))
            .map(v -> v instanceof Value.Null ? "empty" : Evaluator.show(v))
            .toList());
  }
}
