package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.SetUnique;
import joiner.model.Relationship;
import joiner.model.Table;

/** A foreign key refers to a primary or unique key. */
final class ReferenceToNoKey implements RelationshipCheck {
  private static final TableFinding FINDING =
      new TableFinding("reference-to-no-key", Severity.ERROR, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(Relationship r, Table child, Table parent, Consumer<Finding> found) {
    if (!parent.isKey(r.parentFields())) {
      String fields = String.join(" and ", parent.labelsOf(r.parentFields()));
      found.accept(
          FINDING.about(
              r,
              r.name() + " refers to " + fields + " of " + parent.label() + ", which is not a key.",
              "A row could then belong to several parents at once, so engines refuse it.",
              new Remedy(
                  "Make " + fields + " unique", SetUnique.of(parent, r.parentFields(), true))));
    }
  }
}
