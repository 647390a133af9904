package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.SetParentRequired;
import joiner.model.Multiplicity;
import joiner.model.Relationship;

/** No circle of tables in which each row needs a row of the next first. */
final class RequiredCycle implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("required-cycle", Severity.ERROR, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    Circles.of(design.design(), r -> Multiplicity.of(design.design(), r).parentRequired())
        .forEach(circle -> report(circle, found));
  }

  private static void report(Circles.Circle circle, Consumer<Finding> found) {
    Relationship first = circle.inside().getFirst();
    found.accept(
        FINDING.about(
            first,
            String.join(", ", circle.tables())
                + " need each other: no first row can ever be entered.",
            "Each row requires a row of the next table to be there already, all the way round.",
            new Remedy(
                "Make " + first.name() + " optional",
                new SetParentRequired(first.id(), "make " + first.name() + " optional", false))));
  }
}
