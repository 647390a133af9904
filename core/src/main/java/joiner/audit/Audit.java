package joiner.audit;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.stream.Collectors;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/**
 * Checks sample rows against their design. Keys and references follow ISO/IEC 9075-2: a unique key
 * ignores rows with an empty part, references are MATCH SIMPLE (a row with an empty part of the
 * foreign key passes), a rule is broken only when it is false. Expected time is linear in the cells
 * of the constraints that are not known to hold as before.
 */
public final class Audit {
  /** How many rows are looked at between two questions whether to stop. */
  private static final int ROWS_AT_ONCE = 1024;

  private final Draft draft;
  private final Design design;
  private final Clock clock;
  private final KnownAudit known;
  private final BooleanSupplier cancelled;
  private final FormulaRows typed;

  private Audit(Draft draft, Clock clock, KnownAudit known, BooleanSupplier cancelled) {
    this.draft = draft;
    this.design = draft.design();
    this.clock = clock;
    this.known = known;
    this.cancelled = cancelled;
    this.typed = new FormulaRows(draft);
  }

  /** Which constraint of a table something is known about. */
  private record Part(TableId table, String sort, Object which) {}

  /** Audits all tables; rules that read the clock use that one. */
  public static AuditReport of(Draft draft, Clock clock) {
    return of(draft, clock, () -> false);
  }

  /**
   * Audits all tables until {@code cancelled} says stop; then the report covers the tables done.
   */
  public static AuditReport of(Draft draft, Clock clock, BooleanSupplier cancelled) {
    return of(draft, clock, new KnownAudit(), cancelled);
  }

  /**
   * The same, taking over what is known of constraints that nothing has changed for since; so the
   * time after a change depends only on what it touches.
   */
  public static AuditReport of(
      Draft draft, Clock clock, KnownAudit known, BooleanSupplier cancelled) {
    return new Audit(draft, clock, known, cancelled).run();
  }

  private AuditReport run() {
    var tables = new ArrayList<TableAudit>();
    Map<TableId, List<Relationship>> byChild =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    boolean whole = true;
    try {
      for (Table table : design.tables()) {
        tables.add(audit(table, byChild.getOrDefault(table.id(), List.of())));
      }
    } catch (CancellationException stopped) {
      whole = false;
    }
    known.end(whole);
    return new AuditReport(tables);
  }

  private void checkStopped(int row) {
    if (row % ROWS_AT_ONCE == 0 && cancelled.getAsBoolean()) {
      throw new CancellationException();
    }
  }

  private Rows rows(TableId table) {
    return draft.rows().of(table);
  }

  private TableAudit audit(Table table, List<Relationship> relationships) {
    int count = rows(table.id()).count();
    if (count == 0) {
      return new TableAudit(table.id(), 0, List.of(), List.of());
    }
    TableMeaning meaning = draft.meaning().of(table);
    var parts = new ArrayList<KnownAudit.Found>();
    table.fields().forEach(field -> parts.add(cells(meaning, field)));
    meaning.keys().forEach(key -> parts.add(key(table, key)));
    relationships.forEach(relationship -> parts.add(reference(table, relationship)));
    meaning.rules().forEach(rule -> parts.add(rule(table, rule)));
    return new TableAudit(
        table.id(),
        count,
        parts.stream().flatMap(part -> part.violations().stream()).toList(),
        parts.stream().flatMap(part -> part.hints().stream()).toList());
  }

  private KnownAudit.Found cells(TableMeaning meaning, Field field) {
    Table table = meaning.table();
    checkStopped(0);
    return known.of(
        new Part(table.id(), "cells", field.id()),
        List.of(field, table.isRequired(field.id()), rows(table.id()).identity(field.id())),
        () -> {
          var violations = new ArrayList<Violation>();
          var hints = new ArrayList<Hint>();
          new CellAudit(meaning, field, typed.of(table.id())).addTo(violations, hints);
          return new KnownAudit.Found(violations, hints);
        });
  }

  private KnownAudit.Found key(Table table, Constraint.Unique key) {
    checkStopped(0);
    var inputs = columns(table, key.fields());
    inputs.add(key);
    return known.of(
        new Part(table.id(), "key", key.name()),
        inputs,
        () -> {
          var violations = new ArrayList<Violation>();
          var hints = new ArrayList<Hint>();
          new KeyAudit(table, typed.of(table.id()))
              .addTo(key.name(), key.fields(), violations, hints);
          return new KnownAudit.Found(violations, hints);
        });
  }

  private KnownAudit.Found reference(Table child, Relationship relationship) {
    checkStopped(0);
    Table parent = design.table(relationship.parent());
    var inputs = columns(child, relationship.childFields());
    inputs.addAll(columns(parent, relationship.parentFields()));
    inputs.add(relationship);
    inputs.add(parent.noun());
    return known.of(
        new Part(child.id(), "reference", relationship.id()),
        inputs,
        () -> {
          var violations = new ArrayList<Violation>();
          new ReferenceAudit(design, relationship, typed.of(child.id()), typed.of(parent.id()))
              .addTo(violations);
          return new KnownAudit.Found(violations, List.of());
        });
  }

  /** Fields and the identity of their columns. */
  private List<Object> columns(Table table, List<FieldId> fields) {
    var inputs = new ArrayList<Object>();
    for (FieldId field : fields) {
      inputs.add(table.field(field));
      inputs.add(rows(table.id()).identity(field));
    }
    return inputs;
  }

  /** What a formula's value hangs on beyond the table's own columns. */
  private List<Object> far(Reference reference) {
    var inputs = new ArrayList<Object>();
    if (reference instanceof FarField far) {
      for (RelationshipId id : far.over()) {
        Relationship relationship = design.relationship(id);
        inputs.add(relationship);
        inputs.addAll(columns(design.table(relationship.child()), relationship.childFields()));
        inputs.addAll(columns(design.table(relationship.parent()), relationship.parentFields()));
      }
      TableId end = design.relationship(far.over().getLast()).parent();
      inputs.addAll(columns(design.table(end), List.of(far.field())));
    }
    return inputs;
  }

  private KnownAudit.Found rule(Table table, Constraint.Holds meant) {
    Rule rule = meant.rule();
    if (!(meant.condition() instanceof Checked.Sound sound)) {
      // A rule that cannot be read is a finding of the design, not of its rows.
      return new KnownAudit.Found(List.of(), List.of());
    }
    List<FieldId> fields = meant.fields();
    var inputs = columns(table, fields);
    sound.reads().forEach(reference -> inputs.addAll(far(reference)));
    inputs.add(rule);
    inputs.add(rows(table.id()).count());
    inputs.add(sound.readsClock() ? LocalDate.now(clock) : "no clock");
    return known.of(
        new Part(table.id(), "rule", rule.name()),
        inputs,
        () -> new KnownAudit.Found(broken(table, rule, sound, fields), List.of()));
  }

  private List<Violation> broken(
      Table table, Rule rule, Checked.Sound sound, List<FieldId> fields) {
    var evaluator = new Evaluator(clock);
    var broken = new ArrayList<Integer>();
    for (int row = 0; row < rows(table.id()).count(); row++) {
      checkStopped(row);
      if (isBroken(sound, evaluator, typed.row(table.id(), row))) {
        broken.add(row + 1);
      }
    }
    if (broken.isEmpty()) {
      return List.of();
    }
    boolean one = broken.size() == 1;
    String says =
        rule.message().isBlank()
            ? (one ? "breaks the rule " : "break the rule ") + rule.label()
            : (one ? "is refused: " : "are refused: ") + rule.message();
    return List.of(
        new Violation(
            Violation.Kind.RULE,
            table.id(),
            fields,
            rule.name(),
            broken,
            Sentences.rows(broken) + " " + says));
  }

  private static boolean isBroken(
      Checked.Sound sound, Evaluator evaluator, Function<Reference, Value> row) {
    try {
      return evaluator.evaluate(sound.tree(), row).equals(Value.FALSE);
    } catch (EvaluationException e) {
      return true; // An engine refuses a row whose rule it cannot compute.
    }
  }
}
