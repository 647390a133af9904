package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.ChoicesToLookup;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;

/** Fixed choices are few; a longer list is a table (common practice, no source). */
final class LongChoiceList implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("long-choice-list", Severity.ADVICE, Topic.GUARD);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Field field : table.fields()) {
      if (field.type() instanceof FieldType.Choice choice && choice.values().size() > MOST) {
        found.accept(
            FINDING.about(
                table,
                field,
                field.label()
                    + " of "
                    + table.label()
                    + " has "
                    + choice.values().size()
                    + " fixed choices.",
                "A list this long will be added to and retired from; in a lookup table that is a row, here it is a change of the schema.",
                new Remedy(
                    "Turn it into a lookup table",
                    new ChoicesToLookup(table.id(), field.id(), field.label()))));
      }
    }
  }

  private static final int MOST = 12;
}
