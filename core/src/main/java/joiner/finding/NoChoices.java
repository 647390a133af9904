package joiner.finding;

import java.util.function.Consumer;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;

/** A list to choose from has something to choose (common practice, no source). */
final class NoChoices implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("no-choices", Severity.ERROR, Topic.GUARD);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Field field : table.fields()) {
      if (field.type() instanceof FieldType.Choice choice) {
        run(table, field, choice, found);
      }
    }
  }

  private static void run(
      Table table, Field field, FieldType.Choice choice, Consumer<Finding> found) {
    String what = field.label() + " of " + table.label();
    if (choice.entries().isEmpty()) {
      found.accept(
          FINDING.about(
              table,
              field,
              what + " is a choice, and nothing is listed to choose from.",
              "Until its choices are listed, every text is taken as it comes."));
    } else if (choice.offered().isEmpty()) {
      found.accept(
          FINDING.about(
              table,
              field,
              what + " has retired choices only.",
              "Who enters a new row has nothing to choose from."));
    }
  }
}
