package joiner.finding;

import java.util.ArrayDeque;
import java.util.HashSet;
import java.util.Set;
import java.util.function.Consumer;
import joiner.edit.ChangeRelationship;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;

/** A delete reaches each table by one cascade path only. */
final class CascadeReachesTwice implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("cascade-reaches-twice", Severity.WARNING, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Table table : design.design().tables()) {
      if (design.childrenOf(table.id()).stream().filter(CascadeReachesTwice::cascades).count()
          > 1) {
        follow(design, table, found);
      }
    }
  }

  private static boolean cascades(Relationship r) {
    return r.onDelete() == ReferentialAction.CASCADE && !r.isSelfReference();
  }

  private static void follow(CheckedDesign design, Table start, Consumer<Finding> found) {
    Set<TableId> reached = new HashSet<>(Set.of(start.id()));
    var next = new ArrayDeque<>(Set.of(start.id()));
    while (!next.isEmpty()) {
      for (Relationship r : design.childrenOf(next.poll())) {
        if (!cascades(r)) {
          continue;
        }
        if (reached.add(r.child())) {
          next.add(r.child());
        } else {
          report(design, start, r, found);
        }
      }
    }
  }

  private static void report(
      CheckedDesign design, Table start, Relationship r, Consumer<Finding> found) {
    String child = design.design().table(r.child()).label();
    found.accept(
        FINDING.about(
            r,
            "Deleting " + start.noun().indefinite() + " reaches " + child + " by two cascades.",
            "Some engines refuse such a pair, and which rows go becomes hard to tell.",
            new Remedy(
                "Let " + r.name() + " refuse the delete",
                ChangeRelationship.onDelete(r, ReferentialAction.NO_ACTION))));
  }
}
