package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.audit.Violation;
import joiner.ddl.Keeping;
import joiner.ddl.Keeping.Means;
import joiner.ddl.Lowered;
import joiner.ddl.RowsChoice;
import joiner.edit.OwnerByReference;
import joiner.engine.Dialect;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Kilns are booked for some days. Rules on several bookings together are kept by engines exactly as
 * the audit sees them: a change is refused where rows would break a rule after it, and only there.
 */
class RulesOverRowsOnEnginesTest {
  private static final TableId KILN = new TableId("kiln");
  private static final TableId BOOKING = new TableId("booking");
  private static final RelationshipId OF_KILN = new RelationshipId("booking_kiln_fk");
  private static final RelationshipId AFTER = new RelationshipId("booking_after_fk");
  private static final String SAYS =
      "That cannot be, says the studio's law, and whoever does it nonetheless is asked to read all"
          + " of this, which is longer than some engines let a message be: 128 characters.";

  @TempDir private Path folder;

  /** A rule of a table, and by what PostgreSQL, SQLite and MariaDB keep it. */
  private record Case(TableId table, Demand demand, Means postgres, Means sqlite, Means maria) {
    Means on(String url) {
      return url.startsWith("jdbc:postgresql:")
          ? postgres
          : url.startsWith("jdbc:sqlite:")
              ? sqlite
              : url.startsWith("jdbc:mariadb:") ? maria : Means.AUDIT;
    }
  }

  private static Demand children(String of, String where, String least, String most) {
    return new Demand.OfChildren(
        OF_KILN,
        Formula.unlessBlank(of),
        Formula.unlessBlank(where),
        Optional.of(least).filter(text -> !text.isEmpty()),
        Optional.of(most).filter(text -> !text.isEmpty()));
  }

  private static Demand apart(List<String> per, boolean closed, boolean gapless) {
    return new Demand.Apart(
        per.stream().map(FieldId::new).toList(),
        new FieldId("first_day"),
        new FieldId("last_day"),
        closed,
        gapless);
  }

  private static Demand alone(List<String> per, String where) {
    return new Demand.Alone(per.stream().map(FieldId::new).toList(), new Formula(where));
  }

  static Stream<Case> cases() {
    Means trigger = Means.TRIGGER;
    Means end = Means.DEFERRED_TRIGGER;
    Means index = Means.UNIQUE_INDEX;
    Means apart = Means.EXCLUSION;
    Means none = Means.AUDIT;
    return Stream.of(
        new Case(KILN, children("", "", "", "2"), trigger, trigger, trigger),
        new Case(KILN, children("", "urgent", "", "1"), trigger, trigger, trigger),
        new Case(KILN, children("", "", "1", "3"), end, none, none),
        new Case(KILN, children("", "urgent", "1", "1"), end, none, none),
        new Case(KILN, children("weight", "", "", "5.5"), trigger, trigger, trigger),
        new Case(KILN, children("weight", "NOT urgent", "5", "5"), end, none, none),
        new Case(BOOKING, alone(List.of("kiln_id"), "urgent"), index, index, trigger),
        new Case(BOOKING, alone(List.of(), "urgent AND weight > 1"), index, index, trigger),
        new Case(
            BOOKING,
            alone(List.of("kiln_id", "weight"), "last_day IS NULL"),
            index,
            index,
            trigger),
        new Case(BOOKING, apart(List.of("kiln_id"), false, false), apart, trigger, trigger),
        new Case(
            BOOKING, apart(List.of("kiln_id", "urgent"), true, false), apart, trigger, trigger),
        new Case(BOOKING, apart(List.of(), false, false), apart, trigger, trigger),
        new Case(BOOKING, apart(List.of("kiln_id"), false, true), apart, none, none),
        new Case(BOOKING, apart(List.of("kiln_id"), true, true), apart, none, none),
        new Case(BOOKING, new Demand.Tree(AFTER), trigger, trigger, trigger),
        new Case(
            BOOKING,
            new Demand.OfRow(new Formula("first_day >= kiln_id.built_on")),
            trigger,
            trigger,
            trigger),
        new Case(
            BOOKING,
            new Demand.OfRow(
                new Formula("after_id IS NULL OR after_id.kiln_id.built_on <= kiln_id.built_on")),
            trigger,
            trigger,
            trigger));
  }

  private static Field field(String name, FieldType type) {
    return Field.of(name, name, type);
  }

  private static Draft draft(Case of) {
    Table kiln =
        Table.of("kiln", "Kiln", new Noun("kiln", "kilns"))
            .withFields(
                List.of(
                    field("kiln_id", new FieldType.WholeNumber(Width.BITS_32)),
                    field("built_on", new FieldType.Date())))
            .withPrimaryKey(List.of(new FieldId("kiln_id")));
    Table booking =
        Table.of("booking", "Booking", new Noun("booking", "bookings"))
            .withFields(
                List.of(
                    field("booking_id", new FieldType.WholeNumber(Width.BITS_32)),
                    field("kiln_id", new FieldType.WholeNumber(Width.BITS_32)),
                    field("after_id", new FieldType.WholeNumber(Width.BITS_32)),
                    field("first_day", new FieldType.Date()),
                    field("last_day", new FieldType.Date()),
                    field("urgent", new FieldType.TrueFalse()),
                    field("weight", new FieldType.Decimal(6, 2))))
            .withPrimaryKey(List.of(new FieldId("booking_id")));
    Rule rule = new Rule("law_of_the_studio", "Law of the studio", of.demand, SAYS);
    Table first = of.table.equals(KILN) ? kiln.withRuleAdded(rule) : kiln;
    Table second = of.table.equals(BOOKING) ? booking.withRuleAdded(rule) : booking;
    Design design =
        Design.of(
            "studio",
            "Studio",
            "",
            List.of(),
            List.of(first, second),
            List.of(
                Relationship.of(
                    OF_KILN.value(),
                    BOOKING,
                    List.of(new FieldId("kiln_id")),
                    KILN,
                    List.of(new FieldId("kiln_id"))),
                Relationship.of(
                    AFTER.value(),
                    BOOKING,
                    List.of(new FieldId("after_id")),
                    BOOKING,
                    List.of(new FieldId("booking_id")))),
            Extras.NONE);
    return new Draft(design, SampleRows.NONE);
  }

  /** The rows of both tables as they are held here, changed as those of the database are. */
  private static final class Held {
    final Random random;
    final Map<Integer, Map<String, String>> kilns = new LinkedHashMap<>();
    final Map<Integer, Map<String, String>> bookings = new LinkedHashMap<>();

    Held(long seed) {
      this.random = new Random(seed);
    }

    Held(Held other) {
      this.random = other.random;
      other.kilns.forEach((id, row) -> kilns.put(id, new LinkedHashMap<>(row)));
      other.bookings.forEach((id, row) -> bookings.put(id, new LinkedHashMap<>(row)));
    }

    private String day() {
      return "2026-03-" + (10 + random.nextInt(9));
    }

    private String value(String field) {
      boolean none = random.nextInt(6) == 0;
      return switch (field) {
        case "kiln_id" -> none ? "" : String.valueOf(1 + random.nextInt(3));
        case "after_id" ->
            bookings.isEmpty() || random.nextInt(3) > 0
                ? ""
                : String.valueOf(
                    List.copyOf(bookings.keySet()).get(random.nextInt(bookings.size())));
        case "urgent" -> none ? "" : String.valueOf(random.nextInt(3) == 0);
        case "weight" ->
            none ? "" : List.of("-3", "1", "2", "2.5", "3", "5").get(random.nextInt(6));
        default -> none ? "" : day();
      };
    }

    /** Makes a change here; gives the statement that makes it there, or none. */
    Optional<String> change(int number) {
      int what = random.nextInt(10);
      if (what == 0) {
        int kiln = 1 + random.nextInt(3);
        String built = day();
        kilns.get(kiln).put("built_on", built);
        return Optional.of("UPDATE kiln SET built_on = '" + built + "' WHERE kiln_id = " + kiln);
      }
      if (what < 5 || bookings.isEmpty()) {
        Map<String, String> row = book(number);
        String values = row.values().stream().map(Held::sql).collect(Collectors.joining(", "));
        return Optional.of("INSERT INTO booking VALUES (" + number + ", " + values + ")");
      }
      int booking = List.copyOf(bookings.keySet()).get(random.nextInt(bookings.size()));
      String where = " WHERE booking_id = " + booking;
      if (what < 8) {
        List<String> fields = List.copyOf(bookings.get(booking).keySet());
        String field = fields.get(random.nextInt(fields.size()));
        String value = value(field);
        bookings.get(booking).put(field, value);
        return Optional.of("UPDATE booking SET " + field + " = " + sql(value) + where);
      }
      boolean referred =
          bookings.values().stream()
              .anyMatch(row -> String.valueOf(booking).equals(row.get("after_id")));
      if (referred) {
        return Optional.empty();
      }
      bookings.remove(booking);
      return Optional.of("DELETE FROM booking" + where);
    }

    /** A new booking. */
    Map<String, String> book(int number) {
      var row = new LinkedHashMap<String, String>();
      for (String field :
          List.of("kiln_id", "after_id", "first_day", "last_day", "urgent", "weight")) {
        row.put(field, value(field));
      }
      bookings.put(number, row);
      return row;
    }

    private static String sql(String value) {
      return value.isEmpty()
          ? "NULL"
          : value.equals("true") || value.equals("false") || value.matches("-?[0-9.]+")
              ? value
              : "'" + value + "'";
    }

    Draft in(Draft draft) {
      return draft.withRows(
          SampleRows.NONE
              .with(KILN, none -> rows(draft, KILN, kilns))
              .with(BOOKING, none -> rows(draft, BOOKING, bookings)));
    }

    boolean isBroken(Draft draft) {
      return Audit.of(in(draft), Pottery.CLOCK).violations().findAny().isPresent();
    }

    private static Rows rows(Draft draft, TableId table, Map<Integer, Map<String, String>> all) {
      List<List<Optional<String>>> rows = new ArrayList<>();
      all.forEach(
          (id, row) -> {
            var cells = new ArrayList<Optional<String>>(List.of(Optional.of("" + id)));
            row.values().forEach(v -> cells.add(Optional.of(v).filter(t -> !t.isEmpty())));
            rows.add(cells);
          });
      return Rows.of(draft.design().table(table).fieldIds(), rows);
    }
  }

  private static void run(Connection connection, String... statements) throws SQLException {
    try (var statement = connection.createStatement()) {
      for (String sql : statements) {
        statement.execute(sql);
      }
    }
  }

  private static Keeping keeping(Draft draft, Case of, Dialect dialect) {
    return Lowered.keeping(
        draft, of.table, draft.meaning().of(of.table).ruled().getFirst(), dialect);
  }

  /** What each does with one change after another, each a transaction of its own. */
  @ParameterizedTest
  @MethodSource("cases")
  void aChangeIsRefusedExactlyWhereTheRuleWouldBeBroken(Case of) throws Exception {
    Draft draft = draft(of);
    for (String url : Databases.fresh(folder)) {
      Keeping keeping = keeping(draft, of, Shipment.dialectOf(url));
      assertThat(keeping.by()).as(url).isEqualTo(of.on(url));
      var shipped = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      assertThat(shipped.verification().differences()).as(url).isEmpty();
      if (keeping.isKept()) {
        try (Connection connection = DriverManager.getConnection(url)) {
          follow(draft, connection, url);
        }
      }
      Databases.drop(url);
    }
  }

  private static void follow(Draft draft, Connection connection, String url) throws SQLException {
    connection.setAutoCommit(false);
    var held = new Held(7);
    boolean hasNone = new Held(held).isBroken(draft);
    assertThat(hasNone).isFalse();
    int refused = 0;
    int made = 0;
    for (int kiln = 1; kiln <= 3; kiln++) {
      var with = new Held(held);
      with.kilns.put(kiln, new LinkedHashMap<>(Map.of("built_on", "2026-03-10")));
      String sql = "INSERT INTO kiln VALUES (" + kiln + ", '2026-03-10')";
      var row = new LinkedHashMap<String, String>();
      row.put("kiln_id", "" + kiln);
      row.put("after_id", "");
      row.put("first_day", "2026-03-1" + kiln);
      row.put("last_day", "2026-03-1" + (kiln + 1));
      row.put("urgent", "" + (kiln == 1));
      row.put("weight", "5");
      boolean broken = with.isBroken(draft);
      assertThat(isDone(connection, sql)).as("%s %s", url, sql).isEqualTo(!broken);
      if (broken) { // A kiln that must be booked comes with its booking.
        with.bookings.put(kiln, row);
        row.put("urgent", "true");
        String booked =
            "INSERT INTO booking VALUES ("
                + kiln
                + ", "
                + row.values().stream().map(Held::sql).collect(Collectors.joining(", "))
                + ")";
        if (with.isBroken(draft)) {
          row.put("urgent", "false");
          booked = booked.replace("true", "false");
        }
        assertThat(isDone(connection, sql, booked)).as(url).isEqualTo(!with.isBroken(draft));
      }
      if (!with.isBroken(draft)) {
        held = with;
      }
    }
    long changes = Tries.of(250).count();
    for (int i = 10; i < 10 + changes; i++) {
      var after = new Held(held);
      Optional<String> sql = after.change(i);
      if (sql.isPresent()) {
        boolean broken = after.isBroken(draft);
        boolean done = isDone(connection, sql.get());
        assertThat(done)
            .as("%s, change %d: %s after %s", url, i, sql.get(), held.bookings)
            .isEqualTo(!broken);
        refused += broken ? 1 : 0;
        made += broken ? 0 : 1;
        held = broken ? held : after;
      }
    }
    assertThat(refused).as(url + ": changes refused").isPositive();
    assertThat(made).as(url + ": changes made").isPositive();
  }

  private static boolean isDone(Connection connection, String... statements) throws SQLException {
    try {
      run(connection, statements);
      connection.commit();
      return true;
    } catch (SQLException refused) {
      connection.rollback();
      return false;
    }
  }

  /** What is asked of the rows of a database counts what the audit of the same rows finds. */
  @ParameterizedTest
  @MethodSource("cases")
  void aDatabaseCountsWhatTheAuditFinds(Case of) throws Exception {
    Draft draft = draft(of);
    var held = new Held(3);
    for (int kiln = 1; kiln <= 3; kiln++) {
      held.kilns.put(kiln, new LinkedHashMap<>(Map.of("built_on", "2026-03-1" + kiln)));
    }
    for (int i = 10; i < 110; i++) {
      held.book(i);
    }
    held.bookings.get(10).put("after_id", "12");
    held.bookings.get(12).put("after_id", "10");
    Draft filled = held.in(draft);
    List<String> found = Audit.of(filled, Pottery.CLOCK).violations().map(this::count).toList();
    assertThat(found).isNotEmpty();
    Draft open =
        filled.withDesign(draft.design().withTable(of.table, table -> table.withRules(List.of())));
    for (String url : Databases.fresh(folder)) {
      Shipment.ship(open, Target.of(url), RowsChoice.ALL, Progress.NONE);
      LiveAudit live = LiveAudit.of(draft, Target.of(url), Progress.NONE);
      boolean asked = !url.startsWith("jdbc:h2:") || !(of.demand instanceof Demand.Tree);
      assertThat(live.notices()).as(url).hasSize(asked ? 0 : 1);
      assertThat(live.report().violations().map(this::count).toList())
          .as(url)
          .isEqualTo(asked ? found : List.of());
      Databases.drop(url);
    }
  }

  private String count(Violation violation) {
    return violation.constraint() + " " + violation.count();
  }

  /** Two changes, each of which could be made alone, and what must be there before. */
  private record Race(Case of, List<String> before, String one, String other) {}

  static Stream<Race> races() {
    List<Case> all = cases().toList();
    String kiln = "INSERT INTO kiln VALUES (1, '2026-03-10')";
    String first = "INSERT INTO booking VALUES (1, 1, NULL, '2026-03-10', '2026-03-12', TRUE, 3)";
    String second = "INSERT INTO booking VALUES (2, 1, NULL, '2026-03-11', '2026-03-13', TRUE, 3)";
    String third = "INSERT INTO booking VALUES (3, 1, NULL, '2026-03-20', '2026-03-21', FALSE, 0)";
    var races = new ArrayList<Race>();
    for (int i : List.of(1, 4, 6, 7, 9, 10, 11)) {
      races.add(new Race(all.get(i), List.of(kiln), first, second));
    }
    races.add(new Race(all.get(0), List.of(kiln, third), first, second));
    races.add(
        new Race(
            all.get(14),
            List.of(kiln, third, third.replace("(3,", "(4,")),
            "UPDATE booking SET after_id = 4 WHERE booking_id = 3",
            "UPDATE booking SET after_id = 3 WHERE booking_id = 4"));
    races.add(
        new Race(all.get(15), List.of(kiln), first, "UPDATE kiln SET built_on = '2026-03-15'"));
    return races.stream();
  }

  /** Neither sees what the other does before it has ended; one of them has to give way. */
  @ParameterizedTest
  @MethodSource("races")
  void twoPeopleTogetherDoNotBreakWhatEachAloneWouldKeep(Race race) throws Exception {
    Draft draft = draft(race.of);
    for (String url : Databases.fresh(folder)) {
      boolean apart = url.startsWith("jdbc:postgresql:") || url.startsWith("jdbc:mariadb:");
      if (apart && race.of.on(url) != Means.AUDIT) {
        Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
        try (Connection one = DriverManager.getConnection(url);
            Connection other = DriverManager.getConnection(url)) {
          for (Connection connection : List.of(one, other)) {
            connection.setAutoCommit(false);
          }
          run(one, race.before.toArray(String[]::new));
          one.commit();
          run(one, race.one);
          CompletableFuture<Boolean> waiting =
              CompletableFuture.supplyAsync(() -> isDoneUnchecked(other, race.other));
          try {
            waiting.get(300, TimeUnit.MILLISECONDS);
          } catch (java.util.concurrent.TimeoutException held) {
            // It waits for the first one to end.
          }
          boolean first = isDone(one);
          assertThat(first && waiting.get(60, TimeUnit.SECONDS))
              .as("%s: %s and %s", url, race.one, race.other)
              .isFalse();
        }
      }
      Databases.drop(url);
    }
  }

  private static boolean isDoneUnchecked(Connection connection, String sql) {
    try {
      return isDone(connection, sql);
    } catch (SQLException failed) {
      throw new IllegalStateException(failed);
    }
  }

  @Test
  void valuesStayWhereTheyAreSaidToAndOnlyThere() throws Exception {
    Demand stays =
        new Demand.Stays(
            List.of(new FieldId("weight"), new FieldId("last_day")), new Formula("urgent"));
    Case of = new Case(BOOKING, stays, Means.TRIGGER, Means.TRIGGER, Means.TRIGGER);
    Draft draft = draft(of);
    for (String url : Databases.fresh(folder)) {
      Keeping keeping = keeping(draft, of, Shipment.dialectOf(url));
      assertThat(keeping.by()).as(url).isEqualTo(of.on(url));
      Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      if (keeping.isKept()) {
        try (Connection connection = DriverManager.getConnection(url)) {
          connection.setAutoCommit(false);
          String into = "INSERT INTO booking (booking_id, urgent, weight) VALUES ";
          run(connection, into + "(1, TRUE, 2), (2, FALSE, 2), (3, NULL, NULL)");
          connection.commit();
          String set = "UPDATE booking SET ";
          assertThat(isDone(connection, set + "weight = 3 WHERE booking_id = 1")).isFalse();
          assertThat(isDone(connection, set + "weight = NULL WHERE booking_id = 1")).isFalse();
          assertThat(isDone(connection, set + "last_day = '2026-03-11' WHERE booking_id = 1"))
              .isFalse();
          assertThat(isDone(connection, set + "weight = 2, first_day = '2026-03-11'")).isTrue();
          assertThat(isDone(connection, set + "weight = 3 WHERE booking_id > 1")).isTrue();
          assertThat(isDone(connection, set + "urgent = FALSE WHERE booking_id = 1")).isTrue();
          assertThat(isDone(connection, set + "weight = 3 WHERE booking_id = 1")).isTrue();
        }
      }
      Databases.drop(url);
    }
  }

  /** MariaDB takes no check that reads the clock. */
  @Test
  void whereNoCheckCanReadTheClockATriggerDoes() throws Exception {
    Demand past = new Demand.OfRow(new Formula("first_day <= CURRENT_DATE"));
    Case of = new Case(BOOKING, past, Means.CHECK, Means.AUDIT, Means.TRIGGER);
    Draft draft = draft(of);
    for (String url : Databases.fresh(folder)) {
      Keeping keeping = keeping(draft, of, Shipment.dialectOf(url));
      if (url.startsWith("jdbc:mariadb:")) {
        assertThat(keeping.by()).isEqualTo(Means.TRIGGER);
      }
      Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      if (keeping.isKept()) {
        try (Connection connection = DriverManager.getConnection(url)) {
          connection.setAutoCommit(false);
          String into = "INSERT INTO booking (booking_id, first_day) VALUES ";
          assertThat(isDone(connection, into + "(1, '2099-01-01')")).as(url).isFalse();
          assertThat(isDone(connection, into + "(1, '2020-01-01')")).as(url).isTrue();
          assertThat(isDone(connection, "UPDATE booking SET first_day = '2099-01-01'"))
              .as(url)
              .isFalse();
        }
      }
      Databases.drop(url);
    }
  }

  /** A booking comes after one of the same kiln, which a rule says first and a reference then. */
  @Test
  void thatAParentHasTheSameOwnerIsKeptByAReferenceOnEveryEngine() throws Exception {
    Demand same = new Demand.OfRow(new Formula("after_id.kiln_id = kiln_id"));
    Draft ruled = draft(new Case(BOOKING, same, Means.TRIGGER, Means.TRIGGER, Means.TRIGGER));
    FieldId kiln = new FieldId("kiln_id");
    Draft required =
        ruled.withDesign(
            ruled.design().withTable(BOOKING, t -> t.withField(kiln, f -> f.withRequired(true))));
    Rule rule = required.design().table(BOOKING).rules().getFirst();
    Draft draft = new OwnerByReference(rule, AFTER, kiln, kiln).apply(required);
    assertThat(draft.design().table(BOOKING).rules()).isEmpty();
    for (String url : Databases.fresh(folder)) {
      var shipped = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      assertThat(shipped.verification().differences()).as(url).isEmpty();
      try (Connection connection = DriverManager.getConnection(url)) {
        if (url.startsWith("jdbc:sqlite:")) {
          run(connection, "PRAGMA foreign_keys = ON");
        }
        connection.setAutoCommit(false);
        run(connection, "INSERT INTO kiln VALUES (1, NULL), (2, NULL)");
        String into = "INSERT INTO booking (booking_id, kiln_id, after_id) VALUES ";
        run(connection, into + "(1, 1, NULL)", into + "(2, 1, 1)");
        connection.commit();
        assertThat(isDone(connection, into + "(3, 2, 1)")).as(url).isFalse();
        assertThat(isDone(connection, "UPDATE booking SET kiln_id = 2 WHERE booking_id = 2"))
            .as(url)
            .isFalse();
        assertThat(isDone(connection, into + "(3, 2, NULL)")).as(url).isTrue();
        assertThat(isDone(connection, into + "(4, 2, 3)")).as(url).isTrue();
      }
      Databases.drop(url);
    }
  }

  @Test
  void whoeverIsRefusedReadsTheMessageOfTheRule() throws Exception {
    Case of = cases().findFirst().orElseThrow();
    Draft draft = draft(of);
    for (String url : Databases.fresh(folder)) {
      if (of.on(url) == Means.TRIGGER) {
        Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
        try (Connection connection = DriverManager.getConnection(url)) {
          run(connection, "INSERT INTO kiln VALUES (1, NULL)");
          String message = "";
          for (int i = 1; i <= 3; i++) {
            try {
              run(connection, "INSERT INTO booking (booking_id, kiln_id) VALUES (" + i + ", 1)");
            } catch (SQLException refused) {
              message = refused.getMessage();
            }
          }
          assertThat(message).as(url).contains(SAYS.substring(0, 120));
        }
      }
      Databases.drop(url);
    }
  }
}
