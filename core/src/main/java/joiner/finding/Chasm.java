package joiner.finding;

import java.util.List;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import joiner.model.Field;
import joiner.model.Multiplicity;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.naming.WordList;
import joiner.rows.Rows;

/**
 * Something to add up leads to other tables only through a link that rows may lack, and some do:
 * asked by one of those tables, these rows are left out (the chasm trap of Connolly and Begg,
 * Database Systems, on problems with entity–relationship models; from memory).
 */
final class Chasm implements WholeCheck {
  private static final int SHOWN = 3;
  private static final TableFinding FINDING =
      new TableFinding("chasm", Severity.ADVICE, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Relationship r : design.design().relationships()) {
      Table child = design.design().table(r.child());
      if (r.isSelfReference() || Multiplicity.of(design.design(), r).parentRequired()) {
        continue;
      }
      List<Table> beyond = beyond(design, r);
      if (!beyond.isEmpty()) {
        Additive.of(design, child).ifPresent(adds -> report(design, r, adds, beyond, found));
      }
    }
  }

  /** Tables that each row of the parent leads to, and the child does not by another link. */
  private static List<Table> beyond(CheckedDesign design, Relationship r) {
    return design.parentsOf(r.parent()).stream()
        .filter(next -> Multiplicity.of(design.design(), next).parentRequired())
        .map(Relationship::parent)
        .filter(far -> !far.equals(r.child()) && !far.equals(r.parent()))
        .filter(far -> design.parentsOf(r.child()).stream().noneMatch(o -> o.parent().equals(far)))
        .distinct()
        .map(design.design()::table)
        .toList();
  }

  private static void report(
      CheckedDesign design,
      Relationship r,
      Field adds,
      List<Table> beyond,
      Consumer<Finding> found) {
    Table child = design.design().table(r.child());
    Table parent = design.design().table(r.parent());
    Rows rows = design.rows(child);
    long without =
        IntStream.range(0, rows.count())
            .filter(row -> r.childFields().stream().anyMatch(f -> rows.cell(row, f).isEmpty()))
            .count();
    if (without == 0 || without == rows.count()) {
      return;
    }
    String far =
        WordList.and(beyond.stream().limit(SHOWN).map(table -> table.noun().singular()).toList());
    found.accept(
        FINDING.about(
            r,
            Counts.of(without)
                + " of "
                + Counts.of(rows.count(), child.noun().singular(), child.noun().plural())
                + (without == 1 ? " has no " : " have no ")
                + parent.noun().singular()
                + ", and only through it "
                + child.noun().indefinite()
                + " leads to "
                + far
                + ": "
                + adds.label()
                + " added up by "
                + beyond.getFirst().noun().singular()
                + " leaves them out.",
            "If they have "
                + beyond.getFirst().noun().indefinite()
                + " all the same, relate the two; if not, say in each such question that rows without one count, too."));
  }
}
