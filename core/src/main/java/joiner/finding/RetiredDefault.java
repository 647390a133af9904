package joiner.finding;

import java.util.Optional;
import joiner.edit.ChangeChoices;
import joiner.edit.ChangeField;
import joiner.meaning.DefaultReading;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;

/** New rows do not begin with a choice that is offered no more. */
final class RetiredDefault extends FieldCheck {
  RetiredDefault() {
    super("retired-default", Severity.WARNING, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (field.type() instanceof FieldType.Choice choice) {
      DefaultReading.of(field)
          .filter(given -> given.sort() == DefaultReading.Sort.CONSTANT)
          .flatMap(given -> choice.find(given.words()))
          .filter(FieldType.Choice.Entry::retired)
          .ifPresent(entry -> report(meaning.table(), field, entry, report));
    }
  }

  private static void report(
      Table table, Field field, FieldType.Choice.Entry entry, Report report) {
    report.found(
        "The default " + entry.text() + " of " + field.label() + " is retired.",
        "Rows that leave the field out would begin with what is offered no more.",
        new Remedy("Remove the default", ChangeField.defaultValue(table, field, Optional.empty())),
        new Remedy(
            "Offer " + entry.text() + " again", ChangeChoices.retired(table, field, entry, false)));
  }
}
