package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.ChoicesToLookup;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;

/** A list that grows with the rows is a table (common practice, no source). */
final class GrowingChoices implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("growing-choices", Severity.ADVICE, Topic.GUARD);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Field field : table.fields()) {
      if (field.type() instanceof FieldType.Choice choice && choice.grows()) {
        found.accept(
            FINDING.about(
                table,
                field,
                "The choices of "
                    + field.label()
                    + " of "
                    + table.label()
                    + " grow while rows are entered.",
                "Each new one changes the schema of a database that is in use; in a lookup table it"
                    + " is one more row.",
                new Remedy(
                    "Turn it into a lookup table",
                    new ChoicesToLookup(table.id(), field.id(), field.label()))));
      }
    }
  }
}
