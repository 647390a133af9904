package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.UsualType;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;

/** A measured number says nothing without its unit (common practice, no source). */
final class UnitMissing implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("unit-missing", Severity.ADVICE, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Field field : table.fields()) {
      if (field.unit().isEmpty()
          && field.type().kind().isNumeric()
          && UsualType.isMeasured(field.label())) {
        found.accept(
            FINDING.about(
                table,
                field,
                field.label() + " of " + table.label() + " has no unit.",
                "A measure without its unit is read as somebody likes; say it once, and headings"
                    + " and comments tell it."));
      }
    }
  }
}
