package joiner.audit;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Relationship;
import joiner.model.Table;

/**
 * The audit as one would write it who has all time and memory: every value by itself, every key in
 * a list. What the real one finds is compared with it.
 */
final class PlainAudit {
  private final Draft draft;
  private final Clock clock;
  private final FormulaRows rows;

  private PlainAudit(Draft draft, Clock clock) {
    this.draft = draft;
    this.clock = clock;
    this.rows = new FormulaRows(draft);
  }

  static AuditReport of(Draft draft, Clock clock) {
    var plain = new PlainAudit(draft, clock);
    return new AuditReport(draft.design().tables().stream().map(plain::audit).toList());
  }

  private TableAudit audit(Table table) {
    TableMeaning meaning = draft.meaning().of(table);
    var violations = new ArrayList<Violation>();
    var hints = new ArrayList<Hint>();
    for (Field field : table.fields()) {
      new PlainCells(meaning, field, rows.of(table.id())).addTo(violations, hints);
    }
    for (Constraint.Unique key : meaning.keys()) {
      new PlainKeys(table, rows.of(table.id())).addTo(key.name(), key.fields(), violations, hints);
    }
    for (Relationship r : draft.design().parentsOf(table.id())) {
      new PlainReferences(draft.design(), r, rows.of(r.child()), rows.of(r.parent()))
          .addTo(violations);
    }
    meaning.rules().forEach(rule -> rule(table, rule, violations));
    return new TableAudit(table.id(), draft.rows().of(table.id()).count(), violations, hints);
  }

  private void rule(Table table, Constraint.Holds holds, List<Violation> violations) {
    if (!(holds.condition() instanceof Checked.Sound sound)) {
      return;
    }
    var evaluator = new Evaluator(clock);
    var broken = new ArrayList<Integer>();
    for (int row = 0; row < draft.rows().of(table.id()).count(); row++) {
      boolean holdsHere;
      try {
        holdsHere =
            !evaluator.evaluate(sound.tree(), rows.row(table.id(), row)).equals(Value.FALSE);
      } catch (EvaluationException e) {
        holdsHere = false;
      }
      if (!holdsHere) {
        broken.add(row + 1);
      }
    }
    if (broken.isEmpty()) {
      return;
    }
    boolean one = broken.size() == 1;
    String says =
        holds.rule().message().isBlank()
            ? (one ? "breaks the rule " : "break the rule ") + holds.rule().label()
            : (one ? "is refused: " : "are refused: ") + holds.rule().message();
    violations.add(
        new Violation(
            Violation.Kind.RULE,
            table.id(),
            holds.fields(),
            holds.name(),
            broken.size(),
            broken,
            Sentences.rows(broken, broken.size()) + " " + says));
  }
}
