package joiner.engine;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
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
    String function = function(name, declared, body, "NEW");
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

  private String function(String name, String declared, String body, String returned) {
    return "CREATE FUNCTION "
        + name(name)
        + "() RETURNS trigger LANGUAGE plpgsql AS $keep$\n"
        + declared
        + "BEGIN\n"
        + body
        + "  RETURN "
        + returned
        + ";\nEND\n$keep$";
  }

  /** A trigger whose function is called for each row when the transaction ends. */
  private Trigger atTheEnd(
      Set<Event> events, String changes, String name, String table, List<String> body) {
    String definition =
        "CREATE CONSTRAINT TRIGGER "
            + name(name)
            + " AFTER "
            + changes
            + " ON "
            + name(table)
            + " DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION "
            + name(name)
            + "()";
    String function = function(name, "", lines(body), "NULL");
    return new Trigger(
        name, table, Trigger.Timing.AFTER, events, definition, Optional.of(function));
  }

  /**
   * Who takes the last row away waits for others who take one of the same parent, so that two of
   * them do not each count on the row of the other (READ COMMITTED; SERIALIZABLE sees to it itself,
   * REPEATABLE READ does not). TRUNCATE is not looked at.
   */
  @Override
  public List<Trigger> needing(String coming, String leaving, Needed n) {
    String parent = name(n.parent());
    String rowsOfNew =
        "SELECT 1 FROM " + name(n.child()) + " c WHERE " + same("c", n.columns(), "NEW", n.keys());
    String rowsOfOld =
        "SELECT 1 FROM "
            + name(n.child())
            + " c WHERE "
            + same("c", n.columns(), "OLD", n.columns());
    Trigger onParent =
        atTheEnd(
            EnumSet.of(Event.INSERT, Event.UPDATE),
            "INSERT OR UPDATE OF " + names(distinct(n.row(), n.keys())),
            coming,
            n.parent(),
            List.of(
                "IF NOT EXISTS (" + rowsOfNew + ")",
                "    AND EXISTS (SELECT 1 FROM "
                    + parent
                    + " p WHERE "
                    + same("p", n.row(), "NEW", n.row())
                    + ") THEN",
                refusal(coming, n),
                "END IF;"));
    Trigger onChild =
        atTheEnd(
            EnumSet.of(Event.DELETE, Event.UPDATE),
            "DELETE OR UPDATE OF " + names(n.columns()),
            leaving,
            n.child(),
            List.of(
                "PERFORM 1 FROM "
                    + parent
                    + " p WHERE "
                    + same("p", n.keys(), "OLD", n.columns())
                    + " FOR NO KEY UPDATE;",
                "IF FOUND AND NOT EXISTS (" + rowsOfOld + ") THEN",
                refusal(leaving, n),
                "END IF;"));
    return List.of(onParent, onChild);
  }

  private String refusal(String constraint, Needed needed) {
    return refusal(constraint, needed.says());
  }

  private String refusal(String constraint, String says) {
    return "  RAISE EXCEPTION USING ERRCODE = 'check_violation', CONSTRAINT = "
        + text(constraint)
        + ", MESSAGE = "
        + text(says)
        + ";";
  }

  @Override
  public boolean looksAtTheEnd() {
    return true;
  }

  @Override
  public List<Trigger> looking(Supplier<String> names, Looked look) {
    String name = names.get();
    var body = new ArrayList<String>();
    look.held().forEach(held -> body.add(holding(look, held)));
    body.add("IF EXISTS (" + found(look).replace("\n", "\n    ") + ") THEN");
    body.add(refusal(name, look.says()));
    body.add("END IF;");
    String changes =
        inOrder(look).stream()
            .map(event -> event == Event.UPDATE ? "UPDATE OF " + names(look.columns()) : "" + event)
            .collect(Collectors.joining(" OR "));
    if (look.atEnd()) {
      return List.of(atTheEnd(look.events(), changes, name, look.table(), body));
    }
    String definition =
        "CREATE TRIGGER "
            + name(name)
            + " AFTER "
            + changes
            + " ON "
            + name(look.table())
            + " FOR EACH ROW EXECUTE FUNCTION "
            + name(name)
            + "()";
    String function = function(name, "", lines(body), "NULL");
    return List.of(
        new Trigger(
            name,
            look.table(),
            Trigger.Timing.AFTER,
            look.events(),
            definition,
            Optional.of(function)));
  }

  private String holding(Looked look, Held held) {
    return held.rows().isEmpty()
        ? "PERFORM pg_advisory_xact_lock(hashtext(" + text(held.table()) + "));"
        : "PERFORM 1"
            + heldFrom(look, held, "")
            + (held.alone() ? " FOR NO KEY UPDATE;" : " FOR SHARE;");
  }

  private static List<String> distinct(List<String> some, List<String> more) {
    return Stream.concat(some.stream(), more.stream()).distinct().toList();
  }

  /** That some columns of one row have the values of some of another. */
  private String same(String row, List<String> columns, String other, List<String> others) {
    return IntStream.range(0, columns.size())
        .mapToObj(i -> row + "." + name(columns.get(i)) + " = " + other + "." + name(others.get(i)))
        .collect(Collectors.joining(" AND "));
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
