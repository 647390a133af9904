package joiner.finding;

import joiner.edit.SetOrigin;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.rows.Rows;

/** What identifies a row is entered or counted, not worked out. */
final class ComputedKey extends FieldCheck {
  ComputedKey() {
    super("computed-key", Severity.ERROR, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (field.isComputed() && meaning.table().primaryKey().contains(field.id())) {
      report.found(
          named(meaning.table(), field) + " is worked out, and part of the primary key.",
          "Most engines take no such key, and a row would become another one with its values.",
          new Remedy("Let people enter it", SetOrigin.entered(meaning.table(), field)));
    }
  }
}
