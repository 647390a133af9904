package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.ChangeField;
import joiner.meaning.TypeWords;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;

/** A foreign key has the type and length of the key it refers to. */
final class ForeignKeyTypeDiffers implements RelationshipCheck {
  private static final TableFinding FINDING =
      new TableFinding("foreign-key-type-differs", Severity.ERROR, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(Relationship r, Table child, Table parent, Consumer<Finding> found) {
    for (int i = 0; i < r.childFields().size(); i++) {
      Field from = child.field(r.childFields().get(i));
      Field to = parent.field(r.parentFields().get(i));
      FieldType wanted = to.type().asReferenced();
      if (!from.type().asReferenced().equals(wanted)) {
        found.accept(
            FINDING.about(
                r,
                from.label()
                    + " of "
                    + child.label()
                    + " is "
                    + TypeWords.of(from.type())
                    + ", but refers to "
                    + to.label()
                    + ", which is "
                    + TypeWords.of(wanted)
                    + ".",
                "Engines refuse such a reference or compare the two by conversion, slowly and with surprises.",
                new Remedy(
                    "Make it " + TypeWords.of(wanted), ChangeField.type(child, from, wanted))));
      }
    }
  }
}
