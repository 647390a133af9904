package joiner.finding;

import java.util.ArrayDeque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import joiner.deletion.Outcome;
import joiner.edit.ChangeRelationship;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;

/**
 * Each row must have one or more of another table, and a delete elsewhere takes those along to the
 * last: told where the rows that are there show it.
 */
final class OneOrMoreNotKept implements WholeCheck {
  private static final int MOST_ROWS = 300;
  private static final TableFinding FINDING =
      new TableFinding("one-or-more-not-kept", Severity.ADVICE, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Relationship demand : design.design().relationships()) {
      if (demand.parentNeedsChild()) {
        ways(design, demand).forEach((from, last) -> report(design, demand, from, last, found));
      }
    }
  }

  /** Tables whose deletes take the children along by another way, with the last cascade of it. */
  private static Map<TableId, Relationship> ways(CheckedDesign design, Relationship demand) {
    Map<TableId, Relationship> ways = new HashMap<>();
    var next = new ArrayDeque<TableId>(List.of(demand.child()));
    while (!next.isEmpty()) {
      TableId at = next.poll();
      for (Relationship up : design.parentsOf(at)) {
        boolean taken =
            up.onDelete() == ReferentialAction.CASCADE
                && !up.id().equals(demand.id())
                && !up.parent().equals(demand.child());
        if (taken && !ways.containsKey(up.parent())) {
          ways.put(up.parent(), Optional.ofNullable(ways.get(at)).orElse(up));
          next.add(up.parent());
        }
      }
    }
    return ways;
  }

  private static void report(
      CheckedDesign design,
      Relationship demand,
      TableId from,
      Relationship last,
      Consumer<Finding> found) {
    Table table = design.design().table(from);
    int looked = Math.min(MOST_ROWS, design.rows(table).count());
    long without =
        IntStream.range(0, looked)
            .mapToObj(row -> design.deletions().of(from, row))
            .filter(outcome -> outcome.verdict() != Outcome.Verdict.REFUSED)
            .filter(outcome -> outcome.childless().containsKey(demand.id()))
            .count();
    if (without == 0) {
      return;
    }
    Table parent = design.design().table(demand.parent());
    Table child = design.design().table(demand.child());
    found.accept(
        FINDING.about(
            demand,
            "Each "
                + parent.noun().singular()
                + " must have "
                + child.noun().indefinite()
                + ", and deleting "
                + table.noun().indefinite()
                + " takes its "
                + child.noun().plural()
                + " along: today "
                + Counts.of(without)
                + " of "
                + Counts.of(looked, table.noun().singular(), table.noun().plural())
                + " would leave "
                + parent.noun().plural()
                + " without any.",
            "PostgreSQL refuses such a delete at the end of the transaction; elsewhere nobody does.",
            new Remedy(
                "Refuse to delete " + table.noun().indefinite() + " in use",
                ChangeRelationship.onDelete(last, ReferentialAction.NO_ACTION))));
  }
}
