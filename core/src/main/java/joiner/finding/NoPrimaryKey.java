package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.Counters;
import joiner.meaning.TableMeaning;
import joiner.model.Table;
import joiner.rows.Rows;

/** Every table has a primary key, join tables too (common practice, no source). */
final class NoPrimaryKey implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("no-primary-key", Severity.ERROR, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    if (table.primaryKey().isEmpty()) {
      found.accept(
          FINDING.about(
              table,
              table.label() + " has no primary key.",
              "Without one, two rows can be the same and nothing can refer to a row.",
              new Remedy("Add a counter", Counters.identify(table))));
    }
  }
}
