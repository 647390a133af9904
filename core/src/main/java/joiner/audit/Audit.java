package joiner.audit;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.RuleLanguage;
import joiner.expression.Value;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;
import joiner.rows.Draft;

/**
 * Checks sample rows against their design. Keys and references follow ISO/IEC 9075-2: a unique key
 * ignores rows with an empty part, references are MATCH SIMPLE (a row with an empty part of the
 * foreign key passes), a rule is broken only when it is false. Expected time is linear in cells.
 */
public final class Audit {
  private final Design design;
  private final Clock clock;
  private final BooleanSupplier cancelled;
  private final Map<TableId, TypedTable> typed = new HashMap<>();

  private Audit(Draft draft, Clock clock, BooleanSupplier cancelled) {
    this.design = draft.design();
    this.clock = clock;
    this.cancelled = cancelled;
    design
        .tables()
        .forEach(
            table -> typed.put(table.id(), new TypedTable(table, draft.rows().of(table.id()))));
  }

  /** Audits all tables; rules that read the clock use that one. */
  public static AuditReport of(Draft draft, Clock clock) {
    return of(draft, clock, () -> false);
  }

  /**
   * Audits all tables until {@code cancelled} says stop; then the report covers the tables done.
   */
  public static AuditReport of(Draft draft, Clock clock, BooleanSupplier cancelled) {
    return new Audit(draft, clock, cancelled).run();
  }

  private AuditReport run() {
    var tables = new ArrayList<TableAudit>();
    Map<TableId, List<Relationship>> byChild =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    for (Table table : design.tables()) {
      if (cancelled.getAsBoolean()) {
        break;
      }
      tables.add(audit(table, byChild.getOrDefault(table.id(), List.of())));
    }
    return new AuditReport(tables);
  }

  private TableAudit audit(Table table, List<Relationship> relationships) {
    TypedTable rows = typed.get(table.id());
    if (rows.count() == 0) {
      return new TableAudit(table.id(), 0, List.of(), List.of());
    }
    var violations = new ArrayList<Violation>();
    var hints = new ArrayList<Hint>();
    table.fields().forEach(field -> new CellAudit(table, field, rows).addTo(violations, hints));
    var keys = new KeyAudit(table, rows);
    if (!table.primaryKey().isEmpty()) {
      keys.addTo("pk_" + table.name(), table.primaryKey(), violations, hints);
    }
    for (UniqueKey key : table.uniqueKeys()) {
      keys.addTo(key.name(), key.fields(), violations, hints);
    }
    for (Relationship relationship : relationships) {
      new ReferenceAudit(design, relationship, rows, typed.get(relationship.parent()))
          .addTo(violations);
    }
    table.rules().forEach(rule -> auditRule(table, rule, rows, violations));
    return new TableAudit(table.id(), rows.count(), violations, hints);
  }

  private void auditRule(Table table, Rule rule, TypedTable rows, List<Violation> violations) {
    if (!(RuleLanguage.condition(rule.condition(), table) instanceof Checked.Sound sound)) {
      return; // A rule that cannot be read is a finding of the design, not of its rows.
    }
    var evaluator = new Evaluator(clock);
    var broken = new ArrayList<Integer>();
    for (int row = 0; row < rows.count(); row++) {
      if (isBroken(sound, evaluator, rows, row)) {
        broken.add(row + 1);
      }
    }
    if (!broken.isEmpty()) {
      var fields =
          sound.fields().stream().map(name -> table.fieldNamed(name).orElseThrow().id()).toList();
      String says =
          rule.message().isBlank()
              ? "breaks the rule " + rule.label()
              : "is refused: " + rule.message();
      violations.add(
          new Violation(
              Violation.Kind.RULE,
              table.id(),
              fields,
              rule.name(),
              broken,
              Sentences.rows(broken) + " " + says));
    }
  }

  private static boolean isBroken(
      Checked.Sound sound, Evaluator evaluator, TypedTable rows, int row) {
    try {
      return evaluator.evaluate(sound.tree(), rows.row(row)).equals(Value.FALSE);
    } catch (EvaluationException e) {
      return true; // An engine refuses a row whose rule it cannot compute.
    }
  }
}
