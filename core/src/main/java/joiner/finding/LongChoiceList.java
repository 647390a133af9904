package joiner.finding;

import joiner.edit.ChoicesToLookup;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.Rows;

/** Fixed choices are few; a longer list is a table (common practice, no source). */
final class LongChoiceList extends FieldCheck {
  private static final int MOST = 12;

  LongChoiceList() {
    super("long-choice-list", Severity.ADVICE, Topic.GUARD);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (field.type() instanceof FieldType.Choice choice && choice.values().size() > MOST) {
      report.found(
          named(meaning.table(), field) + " has " + choice.values().size() + " fixed choices.",
          "A list this long will be added to and retired from; in a lookup table that is a row, here"
              + " it is a change of the schema.",
          new Remedy(
              "Turn it into a lookup table",
              new ChoicesToLookup(meaning.table().id(), field.id(), field.label())));
    }
  }
}
