package joiner.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import joiner.edit.RemoveRelationship;
import joiner.model.Multiplicity;
import joiner.model.Relationship;
import joiner.model.TableId;

/** No relationship says what two others already say. */
final class RedundantRelationship implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("redundant-relationship", Severity.ADVICE, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    Set<Relationship> required = new HashSet<>();
    for (Relationship r : design.design().relationships()) {
      if (!r.isSelfReference() && Multiplicity.of(design.design(), r).parentRequired()) {
        required.add(r);
      }
    }
    for (Relationship direct : design.design().relationships()) {
      if (required.contains(direct)) {
        path(design, direct, required).ifPresent(path -> report(design, direct, path, found));
      }
    }
  }

  private static Optional<List<Relationship>> path(
      CheckedDesign design, Relationship direct, Set<Relationship> required) {
    for (Relationship first : design.parentsOf(direct.child())) {
      TableId middle = first.parent();
      if (first.equals(direct)
          || !required.contains(first)
          || middle.equals(direct.parent())
          || middle.equals(direct.child())) {
        continue;
      }
      for (Relationship second : design.parentsOf(middle)) {
        if (required.contains(second) && second.parent().equals(direct.parent())) {
          return Optional.of(List.of(first, second));
        }
      }
    }
    return Optional.empty();
  }

  private static void report(
      CheckedDesign design, Relationship direct, List<Relationship> path, Consumer<Finding> found) {
    String child = design.design().table(direct.child()).noun().indefinite();
    String parent = design.design().table(direct.parent()).noun().singular();
    String middle = design.design().table(path.getFirst().parent()).noun().singular();
    found.accept(
        FINDING.about(
            direct,
            "The "
                + parent
                + " of "
                + child
                + " can be reached through its "
                + middle
                + " as well as by "
                + direct.name()
                + ".",
            "If both always mean the same "
                + parent
                + ", the direct one can only repeat or contradict it; keep it if it has a meaning of its own.",
            new Remedy(
                "Remove " + direct.name(), new RemoveRelationship(direct.id(), direct.name()))));
  }
}
