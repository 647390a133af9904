package joiner.finding;

import joiner.edit.ChoicesToLookup;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.Rows;

/** A list that grows with the rows is a table (common practice, no source). */
final class GrowingChoices extends FieldCheck {
  GrowingChoices() {
    super("growing-choices", Severity.ADVICE, Topic.GUARD);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (field.type() instanceof FieldType.Choice choice && choice.grows()) {
      report.found(
          "The choices of " + named(meaning.table(), field) + " grow while rows are entered.",
          "Each new one changes the schema of a database that is in use; in a lookup table it"
              + " is one more row.",
          new Remedy(
              "Turn it into a lookup table",
              new ChoicesToLookup(meaning.table().id(), field.id(), field.label())));
    }
  }
}
