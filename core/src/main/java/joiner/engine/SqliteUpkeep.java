package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import joiner.catalog.Sequence;
import joiner.catalog.Trigger;
import joiner.catalog.Trigger.Event;
import joiner.shape.CodedNumber.Part;

/**
 * SQLite's triggers: none can change the row that is about to be written, so that it is changed
 * once it is there.
 */
final class SqliteUpkeep extends NumberingUpkeep {
  SqliteUpkeep(Dialect dialect) {
    super(dialect);
  }

  /** One writes at a time, so that nothing has to be held still. */
  @Override
  public List<Trigger> looking(Supplier<String> names, Looked look) {
    var triggers = new ArrayList<Trigger>();
    for (Event event : inOrder(look)) {
      String name = names.get();
      String sql =
          "CREATE TRIGGER "
              + name(name)
              + " AFTER "
              + event
              + (event == Event.UPDATE ? " OF " + names(look.columns()) : "")
              + " ON "
              + name(look.table())
              + " FOR EACH ROW BEGIN\n  SELECT RAISE(ABORT, "
              + text(look.says())
              + ") WHERE EXISTS ("
              + found(look).replace("\n", "\n    ")
              + ");\nEND";
      triggers.add(after(event, name, look.table(), sql));
    }
    return triggers;
  }

  @Override
  public List<Trigger> keeping(String name, Kept kept) {
    var triggers = new ArrayList<Trigger>();
    String on = " ON " + name(kept.table()) + " FOR EACH ROW";
    for (int i = 0; i < kept.stays().size(); i++) {
      String column = kept.stays().get(i);
      String c = name(column);
      String own = name + "_" + (i + 1);
      String sql =
          "CREATE TRIGGER "
              + name(own)
              + " BEFORE UPDATE OF "
              + c
              + on
              + " WHEN OLD."
              + c
              + " IS NOT NULL AND NEW."
              + c
              + " IS NOT OLD."
              + c
              + " BEGIN\n  SELECT RAISE(ABORT, "
              + stayed(kept, column)
              + ");\nEND";
      triggers.add(before(Event.UPDATE, own, kept.table(), sql, Optional.empty()));
    }
    if (!kept.followed().isEmpty() && !kept.others().isEmpty()) {
      String set =
          kept.followed().stream()
              .map(f -> name(f.column()) + " = " + f.value())
              .collect(Collectors.joining(", "));
      // Not of what it changes itself, lest it be called by what it does.
      String of = kept.others().stream().map(this::name).collect(Collectors.joining(", "));
      String sql =
          "CREATE TRIGGER "
              + name(name)
              + " AFTER UPDATE OF "
              + of
              + on
              + " BEGIN\n  UPDATE "
              + name(kept.table())
              + " SET "
              + set
              + " WHERE rowid = NEW.rowid;\nEND";
      triggers.add(after(Event.UPDATE, name, kept.table(), sql));
    }
    return triggers;
  }

  @Override
  public List<Trigger> numbering(String name, Numbered n) {
    String column = name(n.column());
    String numbers = name(n.numbers());
    String given = "NEW." + column;
    String into = "INSERT INTO " + numbersOf(n) + " VALUES (";
    String again = "  ON CONFLICT (" + name(Sequence.PERIOD) + ") DO UPDATE SET " + last() + " = ";
    String counted =
        "(SELECT "
            + last()
            + " FROM "
            + numbers
            + " WHERE "
            + name(Sequence.PERIOD)
            + " = "
            + period(n.form())
            + ")";
    String here = " WHERE rowid = NEW.rowid;";
    String set = "UPDATE " + name(n.table()) + " SET " + column + " = ";
    var made = new ArrayList<String>();
    made.add(into + period(n.form()) + ", 1)");
    made.add(again + last() + " + 1;");
    made.add(
        "SELECT RAISE(ABORT, "
            + full(n)
            + ") WHERE "
            + counted
            + " > "
            + n.form().greatest()
            + ";");
    String bare = numbered(n.form(), counted);
    String whole =
        check(n.form(), "made")
            .map(check -> "(SELECT made || " + check + " FROM (SELECT " + bare + " AS made))")
            .orElse(bare);
    made.add(set + whole + here);
    var brought = new ArrayList<String>();
    brought.add(into + period(n.form(), given) + ", " + counted(n.form(), given) + ")");
    brought.add(again + "MAX(" + last() + ", excluded." + last() + ");");
    return List.of(
        trigger(name, n.table(), given + " IS NULL", made),
        trigger(name + "_given", n.table(), given + " IS NOT NULL", brought));
  }

  private Trigger trigger(String name, String table, String when, List<String> lines) {
    String sql =
        "CREATE TRIGGER "
            + name(name)
            + " AFTER INSERT ON "
            + name(table)
            + " FOR EACH ROW WHEN "
            + when
            + " BEGIN\n"
            + lines(lines)
            + "END";
    return after(Event.INSERT, name, table, sql);
  }

  @Override
  String padded(String number, int digits) {
    return "printf('%0" + digits + "d', " + number + ")";
  }

  @Override
  String today(Part part) {
    String year = "strftime('%Y', 'now', 'localtime')";
    return switch (part) {
      case Part.Year(boolean shortened) -> shortened ? "SUBSTR(" + year + ", 3)" : year;
      case Part.Month month -> "strftime('%m', 'now', 'localtime')";
      case Part.Day day -> "strftime('%d', 'now', 'localtime')";
      default -> throw new IllegalArgumentException("no part of a day");
    };
  }

  @Override
  String areFormed(Numbered numbered) {
    return name(numbered.column()) + " IS NOT NULL";
  }

  @Override
  public List<Trigger> copying(String name, String table, List<Copied> copied, List<String> key) {
    var lines = new ArrayList<String>();
    for (Copied one : copied) {
      String column = name(one.column());
      lines.add(
          "UPDATE "
              + name(table)
              + " SET "
              + column
              + " = ("
              + query(one, "NEW")
              + ") WHERE rowid = NEW.rowid AND "
              + column
              + " IS NULL;");
    }
    String when =
        copied.stream()
            .map(one -> "NEW." + name(one.column()) + " IS NULL")
            .collect(Collectors.joining(" OR "));
    return List.of(trigger(name, table, when, lines));
  }
}
