package joiner.finding;

import java.util.function.Consumer;
import joiner.model.Table;

/** Every table is tied to another one. */
final class TiedToNothing implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("tied-to-nothing", Severity.WARNING, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    if (design.design().tables().size() < 2) {
      return;
    }
    for (Table table : design.design().tables()) {
      if (design.parentsOf(table.id()).isEmpty() && design.childrenOf(table.id()).isEmpty()) {
        found.accept(
            FINDING.about(
                table,
                table.label() + " is tied to no other table.",
                "What it holds cannot be joined with anything; a relationship is missing or the table belongs elsewhere."));
      }
    }
  }
}
