package joiner.finding;

import joiner.edit.UsualType;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.rows.Rows;

/** A measured number says nothing without its unit (common practice, no source). */
final class UnitMissing extends FieldCheck {
  UnitMissing() {
    super("unit-missing", Severity.ADVICE, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (field.unit().isEmpty()
        && field.type().kind().isNumeric()
        && UsualType.isMeasured(field.label())) {
      report.found(
          named(meaning.table(), field) + " has no unit.",
          "A measure without its unit is read as somebody likes; say it once, and headings"
              + " and comments tell it.");
    }
  }
}
