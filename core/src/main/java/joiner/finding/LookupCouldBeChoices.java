package joiner.finding;

import java.util.List;
import java.util.function.Consumer;
import joiner.edit.EditRefusedException;
import joiner.edit.LookupToChoices;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.rows.Rows;

/**
 * A few words that one field picks from need no table (common practice, no source). Lists that
 * people retire entries of are kept by them, and stay tables.
 */
final class LookupCouldBeChoices implements WholeCheck {
  private static final int MOST = 5;

  private static final TableFinding FINDING =
      new TableFinding("lookup-could-be-choices", Severity.ADVICE, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Table table : design.design().tables()) {
      if (table.kind() instanceof TableKind.Lookup(var sortBy, var retired)
          && retired.isEmpty()
          && isShort(design.rows(table))
          && isPickedOnce(design.childrenOf(table.id()))
          && isPossible(design, table)) {
        found.accept(
            FINDING.about(
                table,
                table.label() + " is a table for " + design.rows(table).count() + " words.",
                "One field picks from it, and nothing more is said of each; fixed choices say the"
                    + " same with a check. As a table it is right where people add to it.",
                new Remedy(
                    "Turn it into fixed choices", new LookupToChoices(table.id(), table.label()))));
      }
    }
  }

  private static boolean isShort(Rows rows) {
    return rows.count() > 0 && rows.count() <= MOST;
  }

  private static boolean isPickedOnce(List<Relationship> referring) {
    return referring.size() == 1 && !referring.getFirst().picking().mayAdd();
  }

  private static boolean isPossible(CheckedDesign design, Table table) {
    try {
      new LookupToChoices(table.id(), table.label()).apply(design.draft());
      return true;
    } catch (EditRefusedException e) {
      return false; // More is said of its rows than choices could hold.
    }
  }
}
