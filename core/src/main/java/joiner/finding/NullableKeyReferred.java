package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.ChangeField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;

/** A key that is referred to is never empty. */
final class NullableKeyReferred implements RelationshipCheck {
  private static final TableFinding FINDING =
      new TableFinding("nullable-key-referred", Severity.WARNING, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(Relationship r, Table child, Table parent, Consumer<Finding> found) {
    for (FieldId id : r.parentFields()) {
      if (parent.isKey(r.parentFields()) && !parent.isRequired(id)) {
        Field field = parent.field(id);
        found.accept(
            FINDING.about(
                r,
                r.name()
                    + " refers to "
                    + field.label()
                    + " of "
                    + parent.label()
                    + ", which may be empty.",
                "A row without it can never be referred to, and several such rows are allowed.",
                new Remedy(
                    "Make " + field.label() + " required",
                    ChangeField.required(parent, field, true))));
      }
    }
  }
}
