package joiner.engine;

import java.util.List;
import joiner.catalog.TableChange.ColumnChange;

/**
 * How SQLite changes tables: each is made anew while references are not looked at, and they are
 * looked at in the end (after its documentation, "Making Other Kinds Of Table Schema Changes").
 */
final class SqliteAlter extends AnewAlter {
  SqliteAlter(Dialect dialect) {
    super(dialect);
  }

  @Override
  public List<String> opening() {
    return List.of("PRAGMA foreign_keys = OFF", "BEGIN");
  }

  /** The check refuses where a row refers to none. */
  @Override
  public List<String> closing() {
    return List.of(
        "CREATE TEMP TABLE rows_that_refer_to_none (n CHECK (n = 0))",
        "INSERT INTO rows_that_refer_to_none SELECT count(*) FROM pragma_foreign_key_check",
        "DROP TABLE rows_that_refer_to_none",
        "COMMIT",
        "PRAGMA foreign_keys = ON");
  }

  /** Values are what they are, whatever the column says. */
  @Override
  public String carried(ColumnChange change, String from) {
    return from;
  }
}
