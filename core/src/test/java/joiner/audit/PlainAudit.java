package joiner.audit;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
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
import joiner.model.TableId;
import joiner.rows.ReadValue;
import joiner.rows.RowValues;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * The audit as one would write it who has all time and memory: every value by itself, every key in
 * a list. What the real one finds is compared with it.
 */
final class PlainAudit {
  private final Draft draft;
  private final Clock clock;
  private final FormulaRows rows;
  private final Map<TableId, RowValues> known = new HashMap<>();

  private PlainAudit(Draft draft, Clock clock) {
    this.draft = draft;
    this.clock = clock;
    this.rows = new FormulaRows(draft, clock);
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
      if (worked(table, field, violations)) {
        new PlainCells(meaning, field, values(table)).addTo(violations, hints);
      }
    }
    for (Constraint.Unique key : meaning.keys()) {
      new PlainKeys(table, values(table)).addTo(key.name(), key.fields(), violations, hints);
    }
    draft.design().parentsOf(table.id()).forEach(r -> references(r).addTo(violations));
    draft.design().childrenOf(table.id()).stream()
        .filter(Relationship::parentNeedsChild)
        .forEach(r -> references(r).addChildless(violations));
    meaning.rules().forEach(rule -> rule(table, rule, violations));
    return new TableAudit(table.id(), draft.rows().of(table.id()).count(), violations, hints);
  }

  private PlainReferences references(Relationship r) {
    RowValues child = values(draft.design().table(r.child()));
    RowValues parent = values(draft.design().table(r.parent()));
    return new PlainReferences(draft.design(), r, child, parent);
  }

  /** The values of a table, each computed one worked out by itself; an error is no value. */
  private RowValues values(Table table) {
    return known.computeIfAbsent(
        table.id(),
        id -> {
          Rows worked = draft.rows().of(id);
          for (Field field : table.fields()) {
            if (field.isComputed()) {
              List<Optional<String>> cells =
                  IntStream.range(0, worked.count())
                      .mapToObj(row -> text(worked(table, field, row)))
                      .toList();
              worked = worked.withColumn(field.id(), cells);
            }
          }
          return new RowValues(table, worked);
        });
  }

  private static Optional<String> text(Optional<Value> value) {
    return value.map(Evaluator::show).filter(text -> !text.isEmpty());
  }

  /** What a field is worked out as in a row; empty where it cannot be. */
  private Optional<Value> worked(Table table, Field field, int row) {
    return draft.meaning().of(table).computed(field.id()).orElseThrow() instanceof Checked.Sound by
        ? worked(table, by, row)
        : Optional.empty();
  }

  private Optional<Value> worked(Table table, Checked.Sound by, int row) {
    try {
      return Optional.of(new Evaluator(clock).evaluate(by.tree(), rows.row(table.id(), row)));
    } catch (EvaluationException e) {
      return Optional.empty();
    }
  }

  /** Says where a computed field comes with other values, or has none; false: nothing is to say. */
  private boolean worked(Table table, Field field, List<Violation> violations) {
    if (!field.isComputed()) {
      return true;
    }
    if (!(draft.meaning().of(table).computed(field.id()).orElseThrow()
        instanceof Checked.Sound by)) {
      return false;
    }
    var differing = new ArrayList<Integer>();
    var failed = new ArrayList<Integer>();
    var says = new ArrayList<String>();
    for (int row = 0; row < draft.rows().of(table.id()).count(); row++) {
      Optional<String> given = draft.rows().of(table.id()).cell(row, field.id());
      Optional<Value> value = worked(table, by, row);
      if (value.isEmpty()) {
        failed.add(row + 1);
      } else if (given.isPresent()
          && !(ValueReader.read(given.get(), field.type()) instanceof ReadValue.Fits(Value is)
              && is.equals(value.get()))) {
        differing.add(row + 1);
        says.add(
            ": "
                + field.label()
                + " holds “"
                + given.get()
                + "” where it is worked out as “"
                + Evaluator.show(value.get())
                + "”.");
      }
    }
    add(table, field, "computed of ", differing, says.isEmpty() ? "" : says.getFirst(), violations);
    add(table, field, "computed by value of ", failed, why(table, by, failed, field), violations);
    return true;
  }

  private String why(Table table, Checked.Sound by, List<Integer> failed, Field field) {
    try {
      if (!failed.isEmpty()) {
        new Evaluator(clock).evaluate(by.tree(), rows.row(table.id(), failed.getFirst() - 1));
      }
      return "";
    } catch (EvaluationException e) {
      return ": " + field.label() + " cannot be worked out: " + e.getMessage() + ".";
    }
  }

  private static void add(
      Table table,
      Field field,
      String which,
      List<Integer> rows,
      String says,
      List<Violation> violations) {
    if (!rows.isEmpty()) {
      violations.add(
          new Violation(
              Violation.Kind.COMPUTED,
              table.id(),
              List.of(field.id()),
              which + field.name(),
              rows.size(),
              rows,
              Sentences.rows(rows, rows.size()) + says));
    }
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
