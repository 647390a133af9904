package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.ChangeField;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;

/** A foreign key has the type and length of the key it refers to. */
final class ForeignKeyTypeDiffers implements DesignCheck {
  private static final TableFinding FINDING =
      new TableFinding("foreign-key-type-differs", Severity.ERROR, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Relationship r : design.design().relationships()) {
      for (int i = 0; i < r.childFields().size(); i++) {
        Field child = design.field(r.child(), r.childFields().get(i));
        Field parent = design.field(r.parent(), r.parentFields().get(i));
        FieldType wanted = parent.type().asReferenced();
        if (!child.type().asReferenced().equals(wanted)) {
          Table table = design.design().table(r.child());
          found.accept(
              FINDING.about(
                  r,
                  child.label()
                      + " of "
                      + table.label()
                      + " is "
                      + TypeWords.of(child.type())
                      + ", but refers to "
                      + parent.label()
                      + ", which is "
                      + TypeWords.of(wanted)
                      + ".",
                  "Engines refuse such a reference or compare the two by conversion, slowly and with surprises.",
                  new Remedy(
                      "Make it " + TypeWords.of(wanted), ChangeField.type(table, child, wanted))));
        }
      }
    }
  }
}
