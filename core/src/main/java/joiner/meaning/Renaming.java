package joiner.meaning;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;

/**
 * The one place that carries new names into the formulas of a design. A formula that reads
 * something that is gone stays as it was typed, and is a finding.
 */
public final class Renaming {
  private final Design before;
  private final Design after;

  private Renaming(Design before, Design after) {
    this.before = before;
    this.after = after;
  }

  /**
   * The design {@code after}, in whose formulas everything that was in {@code before} is called as
   * it is called now. Several things may have got new names at once, each other's too. Linear in
   * tables and formulas.
   */
  public static Design carry(Design before, Design after) {
    var renaming = new Renaming(before, after);
    return after.withTables(after.tables().stream().map(renaming::carried).toList());
  }

  /** A formula of a table, with everything called as in the other design. */
  public static Formula carry(Formula formula, Design before, Table table, Design after) {
    return new Renaming(before, after).carried(formula, new TableScope(before, table), table);
  }

  private Table carried(Table now) {
    Table old = before.find(now.id()).orElse(now);
    Scope scope = new TableScope(before, old);
    UnaryOperator<Formula> carried =
        formula -> old != now || formula.reachesOut() ? carried(formula, scope, old) : formula;
    List<Rule> rules =
        now.rules().stream()
            .map(rule -> rule.withCondition(carried.apply(rule.condition())))
            .toList();
    Optional<Formula> rowLabel = now.rowLabel().map(carried);
    boolean same = rules.equals(now.rules()) && rowLabel.equals(now.rowLabel());
    return same ? now : now.withRules(rules).withRowLabel(rowLabel); // A table not touched stays.
  }

  private Formula carried(Formula formula, Scope scope, Table table) {
    return formula.renamed(scope, reference -> path(table, reference));
  }

  private List<String> path(Table table, Reference reference) {
    return switch (reference) {
      case OwnField own
          when after.find(table.id()).filter(t -> t.hasField(own.field())).isPresent() ->
          List.of(after.table(table.id()).field(own.field()).name());
      case FarField far -> path(far);
      default -> reference.path();
    };
  }

  private List<String> path(FarField far) {
    var over = new ArrayList<Relationship>();
    for (RelationshipId id : far.over()) {
      after.find(id).ifPresent(over::add);
    }
    boolean whole = over.size() == far.over().size();
    return whole && after.table(over.getLast().parent()).hasField(far.field())
        ? TableScope.path(after, over, after.table(over.getLast().parent()).field(far.field()))
        : far.path();
  }
}
