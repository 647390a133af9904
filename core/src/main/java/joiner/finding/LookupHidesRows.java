package joiner.finding;

import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import joiner.edit.ChangeRelationship;
import joiner.expression.Checked;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.Rows;

/**
 * Rows in use are among those offered, or retired on purpose. A condition that tells the time is
 * true of some rows today and of others tomorrow, and is left alone.
 */
final class LookupHidesRows implements WholeCheck {

  private static final TableFinding FINDING =
      new TableFinding("lookup-hides-rows", Severity.WARNING, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign checked, Consumer<Finding> found) {
    Draft draft = checked.draft();
    for (Relationship r : draft.design().relationships()) {
      if (r.childFields().size() == 1
          && draft.rows().link(r.child()).isEmpty()
          && draft.rows().link(r.parent()).isEmpty()
          && draft.meaning().offered(r).orElse(null) instanceof Checked.Sound sound
          && !sound.readsClock()) {
        run(draft, r, found);
      }
    }
  }

  private static void run(Draft draft, Relationship r, Consumer<Finding> found) {
    ParentRows parents = ParentRows.of(draft, r, CheckedDesign.ANY_DAY);
    Rows rows = draft.rows().of(r.child());
    long hidden =
        IntStream.range(0, rows.count())
            .mapToObj(row -> rows.cell(row, r.childFields().getFirst()))
            .flatMap(Optional::stream)
            .flatMap(cell -> parents.find(cell).stream())
            .filter(parent -> !parent.offered() && !parent.retired())
            .count();
    if (hidden > 0) {
      found.accept(finding(draft, r, hidden));
    }
  }

  private static Finding finding(Draft draft, Relationship r, long hidden) {
    Table child = draft.design().table(r.child());
    String parents = draft.design().table(r.parent()).noun().plural();
    return FINDING.about(
        r,
        Counts.of(hidden, child.noun().singular() + " refers", child.noun().plural() + " refer")
            + " to "
            + parents
            + " that are not offered for "
            + child.field(r.childFields().getFirst()).label()
            + ".",
        "Who changes such a row does not find what it holds; either the condition is too narrow, or"
            + " those rows are wrong.",
        new Remedy(
            "Offer all " + parents,
            ChangeRelationship.picking(r, r.picking().withOnly(Optional.empty()))));
  }
}
