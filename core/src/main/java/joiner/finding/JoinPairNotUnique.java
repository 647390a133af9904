package joiner.finding;

import java.util.ArrayList;
import java.util.function.Consumer;
import joiner.edit.SetUnique;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableKind;

/** The pair of a join table occurs once (common practice, no source). */
final class JoinPairNotUnique implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("join-pair-not-unique", Severity.ERROR, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Table table : design.design().tables()) {
      if (table.kind() instanceof TableKind.Join join) {
        var pair = new ArrayList<FieldId>();
        addSide(design.design(), join.first(), pair);
        addSide(design.design(), join.second(), pair);
        if (!pair.isEmpty() && !table.isUnique(pair)) {
          found.accept(
              FINDING.about(
                  table,
                  table.label() + " accepts the same pair twice.",
                  "The same link entered twice counts twice in every question asked across it.",
                  new Remedy("Make the pair unique", SetUnique.of(table, pair, true))));
        }
      }
    }
  }

  private static void addSide(Design design, RelationshipId side, ArrayList<FieldId> pair) {
    design.find(side).ifPresent(r -> pair.addAll(r.childFields()));
  }
}
