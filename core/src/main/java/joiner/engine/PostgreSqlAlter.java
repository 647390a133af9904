package joiner.engine;

import java.util.List;
import joiner.catalog.Key;
import joiner.catalog.Trigger;

/** How PostgreSQL changes tables. */
final class PostgreSqlAlter extends Alter {
  PostgreSqlAlter(Dialect dialect) {
    super(dialect);
  }

  @Override
  public List<String> opening() {
    return List.of("BEGIN");
  }

  @Override
  public List<String> closing() {
    return List.of("COMMIT");
  }

  /** Of keys of the same columns that are made with their table, it keeps one. */
  @Override
  public String dropKey(String table, Key key, boolean primary) {
    return table(table) + "DROP CONSTRAINT IF EXISTS " + name(key.name());
  }

  @Override
  public boolean bindsViews() {
    return true;
  }

  @Override
  public List<String> afterNumbers(String table, String counter) {
    return List.of(
        "SELECT setval(pg_get_serial_sequence("
            + Dialect.quoted(name(table))
            + ", "
            + Dialect.quoted(counter)
            + "), ("
            + nextNumber(table, counter)
            + "), FALSE)");
  }

  @Override
  public List<String> dropTrigger(Trigger trigger) {
    String drop = "DROP TRIGGER " + name(trigger.name()) + " ON " + name(trigger.table());
    return trigger.function().isEmpty()
        ? List.of(drop)
        : List.of(drop, "DROP FUNCTION " + name(trigger.name()) + "()");
  }
}
