package joiner.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import joiner.edit.ChangeTable;
import joiner.edit.SplitOff;
import joiner.model.Decided;
import joiner.model.KnownFact;
import joiner.model.Table;

/** What decides something is a key (Boyce–Codd normal form), as far as somebody said what does. */
final class BelowBoyceCodd implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("below-boyce-codd", Severity.WARNING, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign checked, Consumer<Finding> found) {
    for (Table table : checked.design().tables()) {
      if (!table.facts().isEmpty()) {
        new Decided(table)
            .belowBoyceCodd()
            .forEach(fact -> found.accept(finding(checked, table, fact)));
      }
    }
  }

  private static Finding finding(CheckedDesign checked, Table table, KnownFact fact) {
    SplitOff split = SplitOff.of(checked.design(), table.id(), fact);
    var remedies = new ArrayList<Remedy>();
    if (split.inTheWay(checked.design()).isEmpty()) {
      remedies.add(new Remedy("Say it once, in " + split.label(), split));
    }
    remedies.add(new Remedy("Say no longer that it is so", ChangeTable.forget(table, fact)));
    List<String> labels = table.labelsOf(fact.dependents());
    return FINDING.about(
        table,
        table.field(fact.dependents().getFirst()),
        "In " + table.label() + ", " + fact.words(table) + ", but rows are not identified by it.",
        "Every "
            + table.noun().singular()
            + " says "
            + String.join(", ", labels)
            + " again: changed in one, rows contradict each other; the last one takes it along.",
        remedies.toArray(Remedy[]::new));
  }
}
