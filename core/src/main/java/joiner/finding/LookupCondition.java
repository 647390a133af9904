package joiner.finding;

import java.util.Optional;
import java.util.function.Consumer;
import joiner.edit.ChangeRelationship;
import joiner.expression.Checked;
import joiner.model.Relationship;

/** What is asked of the rows that are offered can be read. */
final class LookupCondition implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("lookup-condition", Severity.ERROR, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign checked, Consumer<Finding> found) {
    for (Relationship r : checked.design().relationships()) {
      if (checked.draft().meaning().offered(r).orElse(null) instanceof Checked.Faulty faulty) {
        found.accept(
            FINDING.about(
                r,
                "The condition on the "
                    + checked.design().table(r.parent()).noun().plural()
                    + " offered over "
                    + r.name()
                    + " cannot be used: "
                    + faulty.problems().getFirst().message(),
                "All rows are offered, as if it were not there.",
                new Remedy(
                    "Offer all of them",
                    ChangeRelationship.picking(r, r.picking().withOnly(Optional.empty())))));
      }
    }
  }
}
