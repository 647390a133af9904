package joiner;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Generated rules over a firing log, in Joiner's own language, and rows to try them on. Numbers
 * with decimals are quarters and are divided by powers of two only, which every engine computes
 * exactly; letters whose case is changed are plain ones, for engines differ in the others.
 */
public final class RandomRules {
  private final Random random;

  /** Rules of that seed. */
  public RandomRules(long seed) {
    this.random = new Random(seed);
  }

  private static final List<String> TEXTS =
      List.of(
          "Big Tom",
          "ember_1",
          "Ash*?[x]",
          "a",
          "A",
          "ab%c",
          " b ",
          "it's",
          "Ofen süd",
          "100%",
          "\\x",
          "Zed",
          "a!b",
          "kiln",
          "Kiln");

  /** The table the rules are about. */
  public static Table table() {
    return Table.of("firing_log", "Firing log", new Noun("firing", "firings"))
        .withFields(
            List.of(
                field("id", new FieldType.WholeNumber(Width.BITS_32)).withRequired(true),
                field("small", new FieldType.WholeNumber(Width.BITS_16)),
                field("whole", new FieldType.WholeNumber(Width.BITS_32)),
                field("big", new FieldType.WholeNumber(Width.BITS_64)),
                field("cost", new FieldType.Decimal(9, 2)),
                field("share", new FieldType.Decimal(2, 2)),
                field("kiln", new FieldType.Text(40)),
                field("note", new FieldType.LongText()),
                field("form", FieldType.Choice.of(TEXTS)),
                field("glazed", new FieldType.TrueFalse()),
                field("fired", new FieldType.TrueFalse()),
                field("day", new FieldType.Date()),
                field("due", new FieldType.Date()),
                field("clock", new FieldType.Time()),
                field("begun", new FieldType.DateTime(false)),
                field("ended", new FieldType.DateTime(false)),
                field("sent", new FieldType.DateTime(true)),
                field("mark", new FieldType.Uuid())))
        .withPrimaryKey(List.of(new FieldId("id")));
  }

  private static Field field(String name, FieldType type) {
    return Field.of(name, name, type);
  }

  /** Some rows of the table, one of them empty, some cells at the edges of their types. */
  public Draft draft(int count) {
    Table table = table();
    var rows = new ArrayList<List<Optional<String>>>();
    for (int row = 0; row < count; row++) {
      int number = row;
      rows.add(
          table.fields().stream()
              .map(
                  field ->
                      field.name().equals("id")
                          ? Optional.of(String.valueOf(number + 1))
                          : number == 0 || random.nextInt(7) == 0
                              ? Optional.<String>empty()
                              : Optional.of(cell(field.type())))
              .toList());
    }
    return new Draft(
        Design.empty("rules", "Rules").withTableAdded(table),
        new SampleRows(java.util.Map.of(table.id(), Rows.of(table.fieldIds(), rows))));
  }

  private String cell(FieldType type) {
    return switch (type) {
      case FieldType.WholeNumber t when random.nextInt(8) == 0 ->
          String.valueOf(random.nextBoolean() ? t.width().max() : t.width().min() + 1);
      case FieldType.WholeNumber t -> String.valueOf(random.nextInt(-20, 21));
      case FieldType.Decimal t when t.precision() == t.scale() -> one("0", "0.25", "0.5", "-0.75");
      case FieldType.Decimal t -> quarters();
      case FieldType.TrueFalse t -> one("true", "false");
      case FieldType.Date t -> date();
      case FieldType.Time t -> time();
      case FieldType.DateTime t -> date() + "T" + time() + (t.zoned() ? one("Z", "+02:00") : "");
      case FieldType.Uuid t -> uuid();
      default -> TEXTS.get(random.nextInt(TEXTS.size()));
    };
  }

  private String one(String... of) {
    return of[random.nextInt(of.length)];
  }

  private String quarters() {
    return new java.math.BigDecimal(random.nextInt(-80, 81))
        .divide(new java.math.BigDecimal(4))
        .toPlainString();
  }

  private String date() {
    return one("2026-03-14", "2024-02-29", "1999-12-31", "2026-09-30", "2000-01-01");
  }

  private String time() {
    return one("00:00:00", "18:05:00", "23:59:59", "07:40:30");
  }

  private String uuid() {
    String small =
        one("6f9619ff-8b86-4011-b42d-00c04fc964ff", "00000000-0000-4000-8000-00000000000a");
    return random.nextInt(3) == 0 ? small.toUpperCase(java.util.Locale.ROOT) : small;
  }

  /** A rule. */
  public String condition() {
    return condition(3);
  }

  private String condition(int depth) {
    if (depth == 0 || random.nextInt(4) == 0) {
      return atom(2);
    }
    return switch (random.nextInt(6)) {
      case 0 -> "NOT (" + condition(depth - 1) + ")";
      case 1 -> "(" + condition(depth - 1) + ") AND (" + condition(depth - 1) + ")";
      case 2 -> "(" + condition(depth - 1) + ") OR (" + condition(depth - 1) + ")";
      case 3 ->
          "(" + condition(depth - 1) + ") IS " + one("", "NOT ") + one("TRUE", "FALSE", "UNKNOWN");
      case 4 ->
          "CASE WHEN "
              + condition(depth - 1)
              + " THEN "
              + condition(depth - 1)
              + " ELSE "
              + condition(depth - 1)
              + " END";
      default -> atom(2);
    };
  }

  private String compare() {
    return " " + one("=", "<>", "<", "<=", ">", ">=") + " ";
  }

  private String atom(int depth) {
    return switch (random.nextInt(20)) {
      case 0, 1 -> whole(depth) + compare() + whole(depth);
      case 2, 3 -> number(depth) + compare() + number(depth);
      case 4, 5 -> text(depth) + compare() + text(depth);
      case 6 -> moment() + compare() + moment();
      case 7 -> "clock" + compare() + one("TIME '18:05'", "clock", "TIME '00:00:00'");
      case 8 -> "mark " + one("=", "<>") + " " + one("'" + uuid() + "'", "mark");
      case 9 -> one("glazed", "fired", "glazed = fired", "TRUE", "NULL = 1", "glazed <> FALSE");
      case 10 -> whole(1) + not() + " BETWEEN " + whole(1) + " AND " + whole(1);
      case 11 -> text(1) + not() + " BETWEEN " + text(0) + " AND " + text(0);
      case 12 -> whole(1) + not() + " IN (" + whole(0) + ", " + whole(0) + one("", ", NULL") + ")";
      case 13 -> text(0) + not() + " IN (" + text(0) + ", " + text(0) + ")";
      case 14 -> text(0) + not() + " LIKE " + pattern();
      case 15 -> anything() + " IS" + one("", " NOT") + " NULL";
      case 16 -> "sent" + compare() + one("CURRENT_TIMESTAMP", "sent");
      case 17 -> "day" + compare() + one("CURRENT_DATE", "due", "begun");
      case 18 -> "mark IN ('" + uuid() + "', '" + uuid() + "')";
      default -> "day" + not() + " BETWEEN DATE '" + date() + "' AND begun";
    };
  }

  private String not() {
    return one("", " NOT");
  }

  private String anything() {
    return switch (random.nextInt(4)) {
      case 0 -> "(" + whole(1) + ")";
      case 1 -> "(" + text(1) + ")";
      case 2 -> one("day", "clock", "begun", "sent", "mark", "glazed");
      default -> "NULLIF(" + whole(0) + ", " + whole(0) + ")";
    };
  }

  private String pattern() {
    return one(
        "'%'",
        "'Big%'",
        "'big%'",
        "'_'",
        "'%!%' ESCAPE '!'",
        "'%!_1' ESCAPE '!'",
        "'%*?[x]'",
        "'%\\x'",
        "'% %'",
        "''",
        "'a!!b' ESCAPE '!'",
        "'%]'");
  }

  private String whole(int depth) {
    if (depth == 0 || random.nextInt(3) == 0) {
      return one("small", "whole", "big", "0", "1", "7", "-3", "2147483647", "whole");
    }
    return switch (random.nextInt(12)) {
      case 0, 1 -> "(" + whole(depth - 1) + one(" + ", " - ", " * ") + whole(depth - 1) + ")";
      case 2 -> "(" + whole(depth - 1) + " / " + one("2", "-3", "small") + ")";
      case 3 -> "MOD(" + whole(depth - 1) + ", " + one("4", "-3", "whole") + ")";
      case 4 -> "ABS(" + whole(depth - 1) + ")";
      case 5 -> "(-" + whole(0) + ")";
      case 6 -> "CHAR_LENGTH(" + text(depth - 1) + ")";
      case 7 -> "POSITION(" + text(0) + " IN " + text(depth - 1) + ")";
      case 8 ->
          "EXTRACT("
              + one(
                  "YEAR FROM day",
                  "MONTH FROM due",
                  "DAY FROM begun",
                  "HOUR FROM sent",
                  "MINUTE FROM clock",
                  "HOUR FROM ended",
                  "ISODOW FROM day",
                  "ISODOW FROM ended",
                  "ISODOW FROM sent",
                  "DAY FROM (day - due) DAY",
                  "DAY FROM (due - DATE '1999-01-31') DAY",
                  "DAY FROM (begun - day) DAY",
                  "HOUR FROM (ended - begun) HOUR",
                  "MINUTE FROM (begun - ended) MINUTE",
                  "SECOND FROM (ended - begun) SECOND",
                  "HOUR FROM (sent - sent) HOUR",
                  "DAY FROM sent")
              + ")";
      case 9 -> "COALESCE(" + whole(depth - 1) + ", " + whole(0) + ")";
      case 10 -> "CASE WHEN " + atom(0) + " THEN " + whole(0) + " ELSE " + whole(0) + " END";
      default -> "NULLIF(" + whole(depth - 1) + ", " + whole(0) + ")";
    };
  }

  private String number(int depth) {
    if (depth == 0 || random.nextInt(3) == 0) {
      return one("cost", "share", "cost", "1.5", "0.25", "-2.75", "7");
    }
    return switch (random.nextInt(9)) {
      case 0, 1 -> "(" + number(depth - 1) + one(" + ", " - ") + number(depth - 1) + ")";
      case 2 -> "(" + number(depth - 1) + " * " + one("2", "0.5", "share") + ")";
      case 3 -> "(cost / " + one("2", "4.0", "0.5") + ")";
      case 4 -> "ABS(" + number(depth - 1) + ")";
      case 5 -> one("FLOOR(", "CEILING(") + number(depth - 1) + ")";
      case 6 -> "COALESCE(" + number(depth - 1) + ", " + number(0) + ")";
      case 7 ->
          "ROUND("
              + one("cost", "share", "cost * share", "cost / 0.5", "cost - 2.75")
              + one("", ", 0", ", 1", ", 2")
              + ")";
      default -> "CASE WHEN " + atom(0) + " THEN cost ELSE " + number(0) + " END";
    };
  }

  private String text(int depth) {
    if (depth == 0 || random.nextInt(3) == 0) {
      return one("kiln", "note", "form", quoted(TEXTS.get(random.nextInt(TEXTS.size()))), "''");
    }
    return switch (random.nextInt(16)) {
      case 0 -> one("UPPER(", "LOWER(") + one("kiln", "'Big Tom'", "form") + ")";
      case 1 -> one("TRIM(", "LTRIM(", "RTRIM(") + text(depth - 1) + ")";
      case 11 ->
          "TRIM("
              + one("", "LEADING ", "TRAILING ", "BOTH ")
              + one("'a'", "' '", "'%'", "'Z'")
              + " FROM "
              + text(depth - 1)
              + ")";
      case 12 ->
          one("LPAD(", "RPAD(")
              + text(depth - 1)
              + one(", 3", ", 9", ", 1")
              + one("", ", '0'", ", '-'")
              + ")";
      case 13 ->
          "CONCAT_WS("
              + one("', '", "''", "' · '")
              + ", "
              + text(depth - 1)
              + one(", " + text(0), ", note, kiln, " + text(0))
              + ")";
      case 14 ->
          "OVERLAY("
              + text(depth - 1)
              + " PLACING "
              + one("'xy' FROM 1", "'' FROM 2 FOR 1", "kiln FROM 3 FOR 2", "'z' FROM 4 FOR 0")
              + ")";
      case 2, 3 -> "(" + text(depth - 1) + " || " + text(0) + ")";
      case 4 ->
          "SUBSTRING("
              + text(depth - 1)
              + " FROM "
              + one("1", "2", "5", "99", "small")
              + one("", " FOR 3", " FOR 1")
              + ")";
      case 5 -> "COALESCE(" + text(depth - 1) + ", " + text(0) + ")";
      case 6 -> "CAST(" + whole(0) + " AS VARCHAR)";
      case 7 ->
          "CAST("
              + one("cost", "share", "cost * 2", "cost + 1", "-cost", "ABS(share)", "cost * share")
              + " AS VARCHAR)";
      case 8 ->
          "CAST("
              + one("day", "clock", "begun", "glazed", "mark", "FLOOR(cost)", "kiln")
              + " AS VARCHAR)";
      case 9 -> "CASE WHEN " + atom(0) + " THEN " + text(0) + " ELSE " + text(0) + " END";
      case 10 -> "NULLIF(" + text(0) + ", " + text(0) + ")";
      default -> "CASE kiln WHEN 'a' THEN 'x' WHEN note THEN 'y' END";
    };
  }

  private static String quoted(String text) {
    return "'" + text.replace("'", "''") + "'";
  }

  private String moment() {
    String moment =
        one("begun", "ended", "day", "TIMESTAMP '2026-03-14 18:05:00'", "DATE '2024-02-29'");
    boolean dateOnly = moment.equals("day") || moment.startsWith("DATE");
    return moment
        + one("", "", " + ", " - ")
            .replaceFirst(
                "[+-] $",
                "$0INTERVAL '"
                    + random.nextInt(1, 400)
                    + "' "
                    + (dateOnly
                        ? one("DAY", "MONTH", "YEAR")
                        : one("DAY", "HOUR", "MINUTE", "MONTH", "YEAR")));
  }

  /** What a field may be worked out by: a text, a number or a truth. */
  public String value() {
    return switch (random.nextInt(4)) {
      case 0 -> whole(2);
      case 1 -> "ROUND(cost + (" + number(2) + "), 2)";
      case 2 -> condition(1);
      default -> text(2);
    };
  }

  /** Several rules. */
  public List<String> conditions(int count) {
    return IntStream.range(0, count).mapToObj(i -> condition()).toList();
  }
}
