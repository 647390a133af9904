package joiner.finding;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import joiner.deletion.Deletions;
import joiner.edit.ChangeRelationship;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;

/**
 * A delete that takes rows along is not stopped by rows that refer to those: it is told where the
 * rows that are there show it, for then some deletes go through and others do not.
 */
final class CascadeMeetsRefusal implements WholeCheck {
  private static final int MOST_ROWS = 300;
  private static final TableFinding FINDING =
      new TableFinding("cascade-meets-refusal", Severity.ADVICE, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Table table : design.design().tables()) {
      Optional<List<Relationship>> way = way(design, table.id());
      if (way.isPresent()) {
        Deletions.Today today = design.deletions().today(table.id(), MOST_ROWS);
        report(design, table, way.get(), today, found);
      }
    }
  }

  /** Cascades from a table, the last of the relationships being one that refuses. */
  private static Optional<List<Relationship>> way(CheckedDesign design, TableId start) {
    Map<TableId, List<Relationship>> ways = new HashMap<>(Map.of(start, List.of()));
    var next = new ArrayDeque<TableId>(List.of(start));
    while (!next.isEmpty()) {
      TableId at = next.poll();
      List<Relationship> way = ways.get(at);
      for (Relationship down : design.childrenOf(at)) {
        boolean taken = down.onDelete() == ReferentialAction.CASCADE;
        if (taken && !ways.containsKey(down.child())) {
          ways.put(down.child(), and(way, down));
          next.add(down.child());
        }
        boolean refuses =
            down.onDelete() == ReferentialAction.NO_ACTION
                || down.onDelete() == ReferentialAction.RESTRICT;
        if (refuses && !way.isEmpty()) {
          return Optional.of(and(way, down));
        }
      }
    }
    return Optional.empty();
  }

  private static List<Relationship> and(List<Relationship> way, Relationship last) {
    var longer = new ArrayList<>(way);
    longer.add(last);
    return longer;
  }

  private static void report(
      CheckedDesign design,
      Table table,
      List<Relationship> way,
      Deletions.Today today,
      Consumer<Finding> found) {
    if (today.refused() == 0 || today.refused() == today.rows()) {
      return;
    }
    Relationship refusing = way.getLast();
    Table taken = design.design().table(refusing.parent());
    Table last = design.design().table(refusing.child());
    found.accept(
        FINDING.about(
            refusing,
            "Deleting "
                + table.noun().indefinite()
                + " takes its "
                + taken.noun().plural()
                + " along, unless "
                + last.noun().indefinite()
                + " refers to one: then it is refused, today for "
                + Counts.of(today.refused())
                + " of "
                + Counts.of(today.rows(), table.noun().singular(), table.noun().plural())
                + ".",
            "Whether a delete goes through then depends on rows that nobody has in sight.",
            new Remedy(
                "Refuse it for " + taken.noun().plural() + ", too",
                ChangeRelationship.onDelete(
                    way.get(way.size() - 2), ReferentialAction.NO_ACTION))));
  }
}
