package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.ChangeRelationship;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.naming.WordList;

/** Deletes that are taken along do not come round to where they began. */
final class CascadeCircle implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("cascade-circle", Severity.WARNING, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    Circles.of(design.design(), r -> r.onDelete() == ReferentialAction.CASCADE)
        .forEach(circle -> report(circle, found));
  }

  private static void report(Circles.Circle circle, Consumer<Finding> found) {
    Relationship last = circle.inside().getLast();
    found.accept(
        FINDING.about(
            last,
            "A delete goes round "
                + WordList.and(circle.tables())
                + ": one row can take most of what is there along.",
            "Nobody who deletes a row sees how far it goes, and some engines refuse such a circle.",
            new Remedy(
                "Let " + last.name() + " refuse the delete",
                ChangeRelationship.onDelete(last, ReferentialAction.NO_ACTION))));
  }
}
