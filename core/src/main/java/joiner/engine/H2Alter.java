package joiner.engine;

import java.util.List;
import joiner.catalog.TableChange.ColumnChange;

/** How H2 changes tables. */
final class H2Alter extends Alter {
  H2Alter(Dialect dialect) {
    super(dialect);
  }

  @Override
  public String renameColumn(String table, String from, String to) {
    return table(table) + "ALTER COLUMN " + name(from) + " RENAME TO " + name(to);
  }

  @Override
  String typeClause(ColumnChange change) {
    return "SET DATA TYPE " + dialect().spell(change.after().type()) + " USING " + carried(change);
  }

  @Override
  public boolean bindsViews() {
    return true;
  }

  @Override
  public List<String> afterNumbers(String table, String counter) {
    return List.of(
        table(table)
            + "ALTER COLUMN "
            + name(counter)
            + " RESTART WITH ("
            + nextNumber(table, counter)
            + ")");
  }
}
