package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import joiner.catalog.Sequence;
import joiner.catalog.Trigger;
import joiner.catalog.Trigger.Event;
import joiner.shape.CodedNumber.Part;

/** MariaDB's triggers. */
final class MariaDbUpkeep extends NumberingUpkeep {
  private static final String SHARED = " LOCK IN SHARE MODE";

  MariaDbUpkeep(Dialect dialect) {
    super(dialect);
  }

  private Trigger trigger(Event event, String name, String table, List<String> lines) {
    String definition =
        "CREATE TRIGGER "
            + name(name)
            + " BEFORE "
            + event
            + " ON "
            + name(table)
            + " FOR EACH ROW BEGIN\n"
            + lines(lines)
            + "END";
    return before(event, name, table, definition, Optional.empty());
  }

  private static String refused(String message) {
    return "SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = " + message + ";";
  }

  /** What others have finished is only seen by reads that lock. */
  @Override
  public List<Trigger> looking(Supplier<String> names, Looked look) {
    var triggers = new ArrayList<Trigger>();
    for (Event event : inOrder(look)) {
      String name = names.get();
      var lines = new ArrayList<String>();
      if (!look.held().isEmpty()) {
        lines.add("DECLARE held bigint;");
      }
      for (Held held : look.held()) {
        lines.add(
            "SELECT COUNT(*) INTO held"
                + heldFrom(look, held, " FROM " + name(held.table()))
                + (held.alone() && held.rows().isPresent() ? " FOR UPDATE;" : SHARED + ";"));
      }
      boolean walks = found(look).startsWith("WITH ");
      lines.add(
          "IF EXISTS (" + found(look).replace("\n", "\n    ") + (walks ? "" : SHARED) + ") THEN");
      lines.add("  " + refused(text(look.says())));
      lines.add("END IF;");
      String sql =
          "CREATE TRIGGER "
              + name(name)
              + " AFTER "
              + event
              + " ON "
              + name(look.table())
              + " FOR EACH ROW BEGIN\n"
              + lines(lines)
              + "END";
      triggers.add(after(event, name, look.table(), sql));
    }
    return triggers;
  }

  @Override
  public List<Trigger> keeping(String name, Kept kept) {
    var lines = new ArrayList<String>();
    for (String column : kept.stays()) {
      String c = name(column);
      lines.add("IF OLD." + c + " IS NOT NULL AND NOT NEW." + c + " <=> OLD." + c + " THEN");
      lines.add("  " + refused(stayed(kept, column)));
      lines.add("END IF;");
    }
    kept.followed()
        .forEach(f -> lines.add("SET NEW." + name(f.column()) + " = " + f.value() + ";"));
    return List.of(trigger(Event.UPDATE, name, kept.table(), lines));
  }

  @Override
  public List<Trigger> numbering(String name, Numbered n) {
    String column = "NEW." + name(n.column());
    String into = "  INSERT INTO " + numbersOf(n) + " VALUES (";
    String again = "    ON DUPLICATE KEY UPDATE " + last() + " = ";
    var lines = new ArrayList<String>();
    lines.add("DECLARE counted bigint;");
    lines.add("IF " + column + " IS NULL THEN");
    lines.add(into + period(n.form()) + ", 1)");
    lines.add(again + last() + " + 1;");
    lines.add(
        "  SELECT "
            + last()
            + " INTO counted FROM "
            + name(n.numbers())
            + " WHERE "
            + name(Sequence.PERIOD)
            + " = "
            + period(n.form())
            + ";");
    lines.add("  IF counted > " + n.form().greatest() + " THEN");
    lines.add("    " + refused(full(n)));
    lines.add("  END IF;");
    lines.add("  SET " + column + " = " + numbered(n.form(), "counted") + ";");
    check(n.form(), column)
        .ifPresent(
            check -> lines.add("  SET " + column + " = " + joined(List.of(column, check)) + ";"));
    lines.add("ELSEIF " + formed(column, "REGEXP", PatternText.Flavour.PERL, n) + " THEN");
    lines.add(into + period(n.form(), column) + ", " + counted(n.form(), column) + ")");
    lines.add(again + "GREATEST(" + last() + ", VALUES(" + last() + "));");
    lines.add("END IF;");
    return List.of(trigger(Event.INSERT, name, n.table(), lines));
  }

  @Override
  String joined(List<String> texts) {
    return texts.size() == 1 ? texts.getFirst() : "CONCAT(" + String.join(", ", texts) + ")";
  }

  @Override
  String whole(String text) {
    return "CAST(" + text + " AS SIGNED)";
  }

  @Override
  String padded(String number, int digits) {
    return "LPAD(" + number + ", " + digits + ", '0')";
  }

  @Override
  String today(Part part) {
    String form =
        switch (part) {
          case Part.Year(boolean shortened) -> shortened ? "%y" : "%Y";
          case Part.Month month -> "%m";
          case Part.Day day -> "%d";
          default -> throw new IllegalArgumentException("no part of a day");
        };
    return "DATE_FORMAT(CURRENT_DATE, '" + form + "')";
  }

  @Override
  String areFormed(Numbered numbered) {
    return formed(name(numbered.column()), "REGEXP", PatternText.Flavour.PERL, numbered);
  }

  @Override
  public List<Trigger> copying(String name, String table, List<Copied> copied, List<String> key) {
    List<String> lines =
        filling(copied, "NEW", (column, query) -> "SET " + column + " = (" + query + ")");
    return List.of(trigger(Event.INSERT, name, table, lines));
  }
}
