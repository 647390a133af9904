package joiner.meaning;

import java.util.function.UnaryOperator;
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.model.OwnField;
import joiner.model.Table;

/**
 * The one place that carries new names of fields into the formulas of a design. A formula that
 * reads a field that is gone stays as it was typed, and is a finding.
 */
public final class Renaming {
  private Renaming() {}

  /**
   * The table {@code after}, in whose formulas every field of {@code before} is called as it is
   * called now. Several fields may have got new names at once, each other's too.
   */
  public static Table carry(Table before, Table after) {
    Scope scope = new TableScope(before);
    UnaryOperator<Formula> carried = formula -> formula.renamed(scope, to -> nameIn(after, to));
    return after
        .withRules(
            after.rules().stream()
                .map(rule -> rule.withCondition(carried.apply(rule.condition())))
                .toList())
        .withRowLabel(after.rowLabel().map(carried));
  }

  private static String nameIn(Table after, Reference reference) {
    return switch (reference) {
      case OwnField own when after.hasField(own.field()) -> after.field(own.field()).name();
      default -> reference.name();
    };
  }
}
