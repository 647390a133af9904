package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import joiner.catalog.Trigger;
import joiner.catalog.Trigger.Event;

/**
 * SQL Server's triggers that keep values, from its documentation. They see all rows of a statement
 * at once, and find them by their key; numbers they do not give.
 */
final class SqlServerUpkeep extends Upkeep {
  SqlServerUpkeep(Dialect dialect) {
    super(dialect);
  }

  private Trigger trigger(Event event, String name, String table, List<String> lines) {
    String sql =
        "CREATE TRIGGER "
            + name(name)
            + " ON "
            + name(table)
            + " AFTER "
            + event
            + " AS\nBEGIN\n  SET NOCOUNT ON;\n"
            + lines(lines)
            + "END";
    return after(event, name, table, sql);
  }

  @Override
  public List<Trigger> keeping(String name, Kept kept) {
    if (kept.key().isEmpty()) {
      return List.of();
    }
    var lines = new ArrayList<String>();
    lines.add("IF TRIGGER_NESTLEVEL(@@PROCID) > 1 RETURN;");
    for (String column : kept.stays()) {
      String c = name(column);
      lines.add(
          "IF EXISTS (SELECT 1 FROM inserted i JOIN deleted d ON "
              + same(kept.key(), "d")
              + " WHERE d."
              + c
              + " IS NOT NULL AND (i."
              + c
              + " IS NULL OR i."
              + c
              + " <> d."
              + c
              + ")) THROW 50000, "
              + stayed(kept, column)
              + ", 1;");
    }
    if (!kept.followed().isEmpty()) {
      String set =
          kept.followed().stream()
              .map(f -> name(f.column()) + " = " + f.value())
              .collect(Collectors.joining(", "));
      lines.add(
          "UPDATE t SET "
              + set
              + " FROM "
              + name(kept.table())
              + " t JOIN inserted i ON "
              + same(kept.key(), "t")
              + ";");
    }
    return List.of(trigger(Event.UPDATE, name, kept.table(), lines));
  }

  private String same(List<String> key, String other) {
    return key.stream()
        .map(column -> other + "." + name(column) + " = i." + name(column))
        .collect(Collectors.joining(" AND "));
  }

  @Override
  public List<Trigger> copying(String name, String table, List<Copied> copied, List<String> key) {
    if (key.isEmpty()) {
      return List.of();
    }
    var lines = new ArrayList<String>();
    for (Copied one : copied) {
      String column = name(one.column());
      lines.add(
          "UPDATE t SET "
              + column
              + " = ("
              + query(one, "i")
              + ") FROM "
              + name(table)
              + " t JOIN inserted i ON "
              + same(key, "t")
              + " WHERE t."
              + column
              + " IS NULL;");
    }
    return List.of(trigger(Event.INSERT, name, table, lines));
  }
}
