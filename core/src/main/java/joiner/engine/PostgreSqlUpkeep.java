package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.catalog.Sequence;
import joiner.catalog.Trigger;
import joiner.catalog.Trigger.Event;
import joiner.shape.CodedNumber.Part;

/** PostgreSQL's triggers, each with the function it calls. */
final class PostgreSqlUpkeep extends NumberingUpkeep {
  PostgreSqlUpkeep(Dialect dialect) {
    super(dialect);
  }

  private Trigger trigger(Event event, String name, String table, String declared, String body) {
    String function =
        "CREATE FUNCTION "
            + name(name)
            + "() RETURNS trigger LANGUAGE plpgsql AS $keep$\n"
            + declared
            + "BEGIN\n"
            + body
            + "  RETURN NEW;\nEND\n$keep$";
    String definition =
        "CREATE TRIGGER "
            + name(name)
            + " BEFORE "
            + event
            + " ON "
            + name(table)
            + " FOR EACH ROW EXECUTE FUNCTION "
            + name(name)
            + "()";
    return before(event, name, table, definition, Optional.of(function));
  }

  @Override
  public List<Trigger> keeping(String name, Kept kept) {
    var lines = new ArrayList<String>();
    for (String column : kept.stays()) {
      String c = name(column);
      lines.add(
          "IF OLD." + c + " IS NOT NULL AND NEW." + c + " IS DISTINCT FROM OLD." + c + " THEN");
      lines.add(
          "  RAISE EXCEPTION USING ERRCODE = 'check_violation', MESSAGE = "
              + stayed(kept, column)
              + ";");
      lines.add("END IF;");
    }
    kept.followed().forEach(f -> lines.add("NEW." + name(f.column()) + " := " + f.value() + ";"));
    return List.of(trigger(Event.UPDATE, name, kept.table(), "", lines(lines)));
  }

  @Override
  public List<Trigger> numbering(String name, Numbered n) {
    String column = "NEW." + name(n.column());
    String numbers = name(n.numbers());
    var lines = new ArrayList<String>();
    lines.add("IF " + column + " IS NULL THEN");
    lines.add("  INSERT INTO " + numbersOf(n) + " VALUES (" + period(n.form()) + ", 1)");
    lines.add(
        "    ON CONFLICT ("
            + name(Sequence.PERIOD)
            + ") DO UPDATE SET "
            + last()
            + " = "
            + numbers
            + "."
            + last()
            + " + 1");
    lines.add("    RETURNING " + last() + " INTO counted;");
    lines.add("  IF counted > " + n.form().greatest() + " THEN");
    lines.add("    RAISE EXCEPTION USING ERRCODE = 'check_violation', MESSAGE = " + full(n) + ";");
    lines.add("  END IF;");
    lines.add("  " + column + " := " + numbered(n.form(), "counted") + ";");
    check(n.form(), column)
        .ifPresent(check -> lines.add("  " + column + " := " + column + " || " + check + ";"));
    lines.add("ELSIF " + formed(column, "~", PatternText.Flavour.ADVANCED, n) + " THEN");
    lines.add(
        "  INSERT INTO "
            + numbersOf(n)
            + " VALUES ("
            + period(n.form(), column)
            + ", "
            + counted(n.form(), column)
            + ")");
    lines.add(
        "    ON CONFLICT ("
            + name(Sequence.PERIOD)
            + ") DO UPDATE SET "
            + last()
            + " = GREATEST("
            + numbers
            + "."
            + last()
            + ", EXCLUDED."
            + last()
            + ");");
    lines.add("END IF;");
    return List.of(
        trigger(Event.INSERT, name, n.table(), "DECLARE\n  counted bigint;\n", lines(lines)));
  }

  @Override
  String whole(String text) {
    return "CAST(" + text + " AS bigint)";
  }

  @Override
  String padded(String number, int digits) {
    return "LPAD(CAST(" + number + " AS text), " + digits + ", '0')";
  }

  @Override
  String today(Part part) {
    String form =
        switch (part) {
          case Part.Year(boolean shortened) -> shortened ? "YY" : "YYYY";
          case Part.Month month -> "MM";
          case Part.Day day -> "DD";
          default -> throw new IllegalArgumentException("no part of a day");
        };
    return "TO_CHAR(CURRENT_DATE, '" + form + "')";
  }

  @Override
  String areFormed(Numbered numbered) {
    return formed(name(numbered.column()), "~", PatternText.Flavour.ADVANCED, numbered);
  }

  @Override
  public List<Trigger> copying(String name, String table, List<Copied> copied, List<String> key) {
    List<String> lines = filling(copied, "NEW", (column, query) -> column + " := (" + query + ")");
    return List.of(trigger(Event.INSERT, name, table, "", lines(lines)));
  }
}
