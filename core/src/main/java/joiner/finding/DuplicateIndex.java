package joiner.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import joiner.edit.ChangeTable;
import joiner.meaning.TableMeaning;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Table;
import joiner.rows.Rows;

/** No index repeats a key or another index. */
final class DuplicateIndex implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("duplicate-index", Severity.ADVICE, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    Set<List<FieldId>> seen = new HashSet<>(table.keys());
    for (Index index : table.indexes()) {
      if (!seen.add(index.fields())) {
        found.accept(
            FINDING.about(
                table,
                "The index "
                    + index.name()
                    + " of "
                    + table.label()
                    + " repeats a key or another index.",
                "It costs a write on every change and answers nothing the other does not.",
                new Remedy("Remove " + index.name(), ChangeTable.removeIndex(table, index))));
      }
    }
  }
}
