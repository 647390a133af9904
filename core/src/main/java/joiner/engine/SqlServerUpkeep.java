package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import joiner.catalog.Trigger;
import joiner.catalog.Trigger.Event;
import joiner.shape.CodedNumber.Part;

/**
 * SQL Server's triggers that keep values, from its documentation. They see all rows of a statement
 * at once, and find them by their key; numbers they do not give.
 */
final class SqlServerUpkeep extends Upkeep {
  SqlServerUpkeep(Dialect dialect) {
    super(dialect);
  }

  @Override
  public List<Trigger> keeping(String name, Kept kept) {
    if (kept.key().isEmpty()) {
      return List.of();
    }
    var lines = new ArrayList<String>();
    lines.add("SET NOCOUNT ON;");
    lines.add("IF TRIGGER_NESTLEVEL(@@PROCID) > 1 RETURN;");
    for (String column : kept.stays()) {
      String c = name(column);
      lines.add(
          "IF EXISTS (SELECT 1 FROM inserted i JOIN deleted d ON "
              + same(kept, "d")
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
              + same(kept, "t")
              + ";");
    }
    String sql =
        "CREATE TRIGGER "
            + name(name)
            + " ON "
            + name(kept.table())
            + " AFTER UPDATE AS\nBEGIN\n"
            + lines(lines)
            + "END";
    return List.of(after(Event.UPDATE, name, kept.table(), sql));
  }

  private String same(Kept kept, String other) {
    return kept.key().stream()
        .map(column -> other + "." + name(column) + " = i." + name(column))
        .collect(Collectors.joining(" AND "));
  }

  @Override
  public List<Trigger> numbering(String name, Numbered numbered) {
    return List.of();
  }

  @Override
  String padded(String number, int digits) {
    throw new IllegalArgumentException("SQL Server numbers nothing");
  }

  @Override
  String today(Part part) {
    throw new IllegalArgumentException("SQL Server numbers nothing");
  }

  @Override
  String areFormed(Numbered numbered) {
    throw new IllegalArgumentException("SQL Server numbers nothing");
  }

  @Override
  public List<Trigger> copying(String name, String table, List<Copied> copied, List<String> key) {
    if (key.isEmpty()) {
      return List.of();
    }
    var of = new Kept(table, List.of(), List.of(), List.of(), key);
    var lines = new ArrayList<String>();
    lines.add("SET NOCOUNT ON;");
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
              + same(of, "t")
              + " WHERE t."
              + column
              + " IS NULL;");
    }
    String sql =
        "CREATE TRIGGER "
            + name(name)
            + " ON "
            + name(table)
            + " AFTER INSERT AS\nBEGIN\n"
            + lines(lines)
            + "END";
    return List.of(after(Event.INSERT, name, table, sql));
  }
}
