package joiner.finding;

import java.util.Optional;
import java.util.function.Consumer;
import joiner.edit.OwnerByReference;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.meaning.Constraint;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Table;

/**
 * That a row and its parent belong to the same owner is said by a reference that holds the owner
 * too, which every engine keeps, rather than by a rule that only some keep by triggers.
 */
final class OwnerByRule implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("owner-by-rule", Severity.ADVICE, Topic.GUARD);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Table table : design.design().tables()) {
      if (!table.rules().isEmpty()) {
        design.meaning(table).rules().forEach(holds -> look(design.design(), table, holds, found));
      }
    }
  }

  private static void look(
      Design design, Table table, Constraint.Holds holds, Consumer<Finding> found) {
    if (holds.condition() instanceof Checked.Sound(Expression.Compare same, var type)
        && same.operator() == Expression.Comparison.EQUAL) {
      Optional<OwnerByReference> edit =
          edit(design, table, holds, same.left(), same.right())
              .or(() -> edit(design, table, holds, same.right(), same.left()));
      edit.ifPresent(
          by ->
              found.accept(
                  FINDING.about(
                      table,
                      table.field(by.own()),
                      "The rule "
                          + holds.rule().label()
                          + " of "
                          + table.label()
                          + " says what a reference could say.",
                      "A reference that holds "
                          + table.field(by.own()).label()
                          + " too is kept by every engine; a rule over two tables only by some.",
                      new Remedy("Let the reference hold both", by))));
    }
  }

  /** Where a part is empty a reference is not looked at, so that the owner has to be there. */
  private static Optional<OwnerByReference> edit(
      Design design, Table table, Constraint.Holds holds, Expression left, Expression right) {
    if (!(left instanceof Expression.FieldRef(OwnField own, var here))
        || !(right instanceof Expression.FieldRef(FarField far, var there))
        || far.over().size() != 1) {
      return Optional.empty();
    }
    Relationship r = design.relationship(far.over().getFirst());
    Field mine = table.field(own.field());
    Field theirs = far.end(design);
    boolean fits =
        table.isRequired(own.field())
            && !mine.isComputed()
            && !theirs.isComputed()
            && !r.childFields().contains(mine.id())
            && mine.type().asReferenced().equals(theirs.type().asReferenced());
    return fits
        ? Optional.of(new OwnerByReference(holds.rule(), r.id(), mine.id(), theirs.id()))
        : Optional.empty();
  }
}
