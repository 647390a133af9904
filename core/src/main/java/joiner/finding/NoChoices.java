package joiner.finding;

import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.Rows;

/** A list to choose from has something to choose (common practice, no source). */
final class NoChoices extends FieldCheck {
  NoChoices() {
    super("no-choices", Severity.ERROR, Topic.GUARD);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (!(field.type() instanceof FieldType.Choice choice)) {
      return;
    }
    String what = named(meaning.table(), field);
    if (choice.entries().isEmpty()) {
      report.found(
          what + " is a choice, and nothing is listed to choose from.",
          "Until its choices are listed, every text is taken as it comes.");
    } else if (choice.offered().isEmpty()) {
      report.found(
          what + " has retired choices only.", "Who enters a new row has nothing to choose from.");
    }
  }
}
