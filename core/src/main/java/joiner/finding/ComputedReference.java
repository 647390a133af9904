package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.SetOrigin;
import joiner.model.Field;
import joiner.model.Relationship;
import joiner.model.Table;

/** A row refers to its parent by what is entered. */
final class ComputedReference implements RelationshipCheck {
  private static final TableFinding FINDING =
      new TableFinding("computed-reference", Severity.ERROR, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(Relationship r, Table child, Table parent, Consumer<Finding> found) {
    r.childFields().stream()
        .map(child::field)
        .filter(Field::isComputed)
        .findFirst()
        .ifPresent(
            field ->
                found.accept(
                    FINDING.about(
                        r,
                        r.name()
                            + " refers to "
                            + parent.label()
                            + " by "
                            + field.label()
                            + ", which is worked out.",
                        "Engines let no computed column refer, or none whose parent may change.",
                        new Remedy("Let people enter it", SetOrigin.entered(child, field)))));
  }
}
