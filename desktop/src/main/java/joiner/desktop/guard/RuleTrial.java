package joiner.desktop.guard;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.Function;
import joiner.desktop.work.Progress;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.Messages;
import joiner.meaning.RowLabels;
import joiner.meaning.TableMeaning;
import joiner.model.FarField;
import joiner.model.OwnField;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/**
 * A rule tried on the sample rows.
 *
 * @param passing how many rows pass
 * @param refused how many are refused
 * @param passingExamples a few rows that pass, by what the rule looks at
 * @param refusedExamples a few that are refused
 * @param says what a person reads whose row is the first one refused, with its values; empty where
 *     the message names no field
 * @param readsClock whether another day may give another result
 */
record RuleTrial(
    int passing,
    int refused,
    List<String> passingExamples,
    List<String> refusedExamples,
    Optional<String> says,
    boolean readsClock) {
  private static final int EXAMPLES = 2;

  /** A rule of a table and the rows to try it on. */
  record Question(Draft draft, TableId id, Checked.Sound rule, String message, Clock clock) {
    private Table table() {
      return draft.design().table(id);
    }

    private Rows rows() {
      return draft.rows().of(id);
    }

    /** Whether other tables than this have a say. */
    private boolean reachesOut() {
      return rule.reads().stream().anyMatch(FarField.class::isInstance)
          || table().rowLabel().filter(Formula::reachesOut).isPresent();
    }

    /** Whether another question has the same answer; looks at no cell. */
    boolean isSame(Question other) {
      boolean sameAround =
          !reachesOut()
              || (draft.design() == other.draft.design() && draft.rows() == other.draft.rows());
      return id.equals(other.id)
          && sameAround
          && rows() == other.rows()
          && table().fields().equals(other.table().fields())
          && table().rowLabel().equals(other.table().rowLabel())
          && message.equals(other.message)
          && rule.tree().equals(other.rule.tree());
    }
  }

  /** Tries a rule; ends early where that is no longer wanted. */
  static RuleTrial of(Question question, Progress progress) {
    Rows rows = question.rows();
    var values = new FormulaRows(question.draft(), question.clock());
    TableMeaning meaning = question.draft().meaning().of(question.id());
    var labels = new RowLabels(meaning, values, question.clock());
    var evaluator = new Evaluator(question.clock());
    var passing = new ArrayList<String>();
    var refused = new ArrayList<String>();
    Optional<String> says = Optional.empty();
    int passed = 0;
    for (int row = 0; row < rows.count(); row++) {
      if (row % 1024 == 0 && progress.stopped()) {
        throw new CancellationException();
      }
      Function<Reference, Value> seen = values.row(question.id(), row);
      boolean passes = passes(evaluator, question.rule(), seen);
      passed += passes ? 1 : 0;
      if (!passes && says.isEmpty()) {
        says = says(question, seen);
      }
      List<String> examples = passes ? passing : refused;
      if (examples.size() < EXAMPLES) {
        examples.add(labels.of(row) + ": " + seen(question.rule(), seen));
      }
    }
    return new RuleTrial(
        passed, rows.count() - passed, passing, refused, says, question.rule().readsClock());
  }

  /** The message of a row, where it names any of its values. */
  private static Optional<String> says(Question question, Function<Reference, Value> row) {
    String filled =
        Messages.filled(
            question.message(),
            question.table(),
            field -> GuardModel.shown(row.apply(OwnField.of(field))));
    return Optional.of(filled).filter(text -> !text.equals(question.message()));
  }

  private static boolean passes(
      Evaluator evaluator, Checked.Sound rule, Function<Reference, Value> row) {
    try {
      return !evaluator.evaluate(rule.tree(), row).equals(Value.FALSE);
    } catch (EvaluationException e) {
      return false; // An engine refuses a row whose rule it cannot compute.
    }
  }

  private static String seen(Checked.Sound rule, Function<Reference, Value> row) {
    return String.join(
        " · ",
        rule.reads().stream()
            .map(row)
            .map(v -> v instanceof Value.Null ? "empty" : GuardModel.shown(v))
            .toList());
  }
}
