package joiner.engine;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.catalog.CatalogTable;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.catalog.TableChange;

/** How DuckDB changes tables: none that another or an index depends on. */
final class DuckDbAlter extends AnewAlter {
  /** How many rows may stand above another, each referring to the one above it. */
  private static final int DEEPEST = 16;

  DuckDbAlter(Dialect dialect) {
    super(dialect);
  }

  @Override
  public boolean inPlace(TableChange change) {
    return super.inPlace(change) && !change.isRenamed();
  }

  @Override
  public boolean takesFamily() {
    return true;
  }

  /**
   * A row may refer only to one that an earlier statement brought: rows come back in rounds, each
   * with those whose parents are there, and it is an error if some are left in the end.
   */
  @Override
  public List<String> putBack(Return rows) {
    CatalogTable table = rows.table();
    List<ForeignKey> own =
        table.foreignKeys().stream()
            .filter(key -> key.parent().equals(table.name()))
            .filter(key -> rows.values().keySet().containsAll(key.columns()))
            .toList();
    Optional<Key> key =
        table.primaryKey().filter(k -> rows.values().keySet().containsAll(k.columns()));
    if (own.isEmpty() || key.isEmpty()) {
      return super.putBack(rows);
    }
    String round = insert(rows) + " WHERE " + comesNow(rows, own, key.get());
    var statements = new ArrayList<>(Collections.nCopies(DEEPEST, round));
    statements.add(refusingTheRest(rows));
    return statements;
  }

  /** Whether a row's parents are there and itself is not. */
  private String comesNow(Return rows, List<ForeignKey> own, Key key) {
    var conditions = new ArrayList<String>();
    for (ForeignKey reference : own) {
      String none =
          reference.columns().stream()
              .map(column -> rows.values().get(column) + " IS NULL")
              .collect(Collectors.joining(" OR "));
      String parent = exists(rows, reference.columns(), reference.parentColumns());
      conditions.add("(" + none + " OR " + parent + ")");
    }
    conditions.add("NOT " + exists(rows, key.columns(), key.columns()));
    return String.join(" AND ", conditions);
  }

  private String refusingTheRest(Return rows) {
    String why =
        "Rows of "
            + rows.table().name()
            + " refer to each other in a circle, or more than "
            + DEEPEST
            + " deep.";
    return "SELECT CASE WHEN (SELECT count(*) FROM "
        + name(rows.aside())
        + ") > (SELECT count(*) FROM "
        + name(rows.table().name())
        + ") THEN error("
        + Dialect.quoted(why)
        + ") END";
  }

  /** Whether a row of the table has in some columns what the row to come has in others. */
  private String exists(Return rows, List<String> columns, List<String> in) {
    Map<String, String> values = rows.values();
    var same = new ArrayList<String>();
    for (int i = 0; i < columns.size(); i++) {
      same.add("there." + name(in.get(i)) + " = " + values.get(columns.get(i)));
    }
    return "EXISTS (SELECT 1 FROM "
        + name(rows.table().name())
        + " AS there WHERE "
        + String.join(" AND ", same)
        + ")";
  }
}
