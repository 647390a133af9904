package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.KeptValues;
import joiner.RandomCodes;
import joiner.Tries;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.Statement;
import joiner.edit.ChangeRows;
import joiner.edit.SetOrigin;
import joiner.engine.Dialect;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.shape.CheckDigit;
import joiner.shape.CodedNumber;
import joiner.shape.CodedNumber.Part;
import joiner.shape.TextPattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Values that nobody types are kept by engines as Joiner would make them. */
class KeptOnEnginesTest {
  private static final TableId LOG = new TableId("firing_log");
  private static final int ROWS = 12;

  /** Rows that each of two people enters. */
  private static final int EACH = 25;

  @TempDir private Path folder;

  private interface On {
    void run(String url, Dialect dialect, SchemaScript script) throws Exception;
  }

  private void onEach(Draft draft, On what) throws Exception {
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = Shipment.dialectOf(url);
      var shipped = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      assertThat(shipped.verification().differences()).as(url).isEmpty();
      what.run(url, dialect, SchemaScript.of(draft, dialect, RowsChoice.ALL));
      Databases.drop(url);
    }
  }

  private static void run(String url, String sql) throws SQLException {
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement()) {
      statement.execute(sql);
    }
  }

  private static List<Map<String, String>> rows(String url) throws SQLException {
    return rows(url, "firing_log");
  }

  private static List<Map<String, String>> rows(String url, String table) throws SQLException {
    var all = new ArrayList<Map<String, String>>();
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement();
        ResultSet rows = statement.executeQuery("SELECT * FROM " + table + " ORDER BY 1")) {
      while (rows.next()) {
        Map<String, String> row = new LinkedHashMap<>();
        for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
          String column = rows.getMetaData().getColumnLabel(i).toLowerCase(Locale.ROOT);
          row.put(column, rows.getString(i));
        }
        all.add(row);
      }
    }
    return all;
  }

  private static void add(String url, int from, int count) throws SQLException {
    for (int i = from; i < from + count; i++) {
      run(url, "INSERT INTO firing_log (entry_id, what) VALUES (" + (i + 1) + ", 'Bisque')");
    }
  }

  private static List<String> column(List<Map<String, String>> rows, String name) {
    return rows.stream().map(row -> row.get(name)).toList();
  }

  /** The numbers Joiner gives, one after the other. */
  private static List<String> numbers(CodedNumber code, int count) {
    var all = new ArrayList<String>();
    for (int i = 0; i < count; i++) {
      all.add(code.next(all.stream(), LocalDate.now()).orElseThrow());
    }
    return all;
  }

  @Test
  void whatIsDrawnAndNumberedIsAsJoinerMakesIt() throws Exception {
    onEach(
        KeptValues.draft(KeptValues.CODE),
        (url, dialect, script) -> {
          long before = System.currentTimeMillis();
          add(url, 0, ROWS);
          long after = System.currentTimeMillis();
          List<Map<String, String>> rows = rows(url);
          for (String drawn : column(rows, "drawn")) {
            assertThat(UUID.fromString(drawn).version()).as("%s: %s", url, drawn).isEqualTo(4);
            assertThat(UUID.fromString(drawn).variant()).isEqualTo(2);
          }
          for (String timed : column(rows, "timed")) {
            UUID uuid = UUID.fromString(timed);
            assertThat(uuid.version()).as("%s: %s", url, timed).isEqualTo(7);
            assertThat(uuid.variant()).isEqualTo(2);
            assertThat(uuid.getMostSignificantBits() >>> 16)
                .as("%s: the moment in %s", url, timed)
                .isBetween(before - 1000, after + 1000);
          }
          TextPattern tags =
              ((TextPattern.Read.Understood) TextPattern.of(KeptValues.TAG.pattern())).pattern();
          assertThat(column(rows, "tag")).as(url).allMatch(tags::matches).doesNotHaveDuplicates();
          assertThat(new HashSet<>(column(rows, "drawn"))).hasSize(ROWS);
          if (script.promise().sequences().stream().anyMatch(s -> s.isTable())) {
            assertThat(column(rows, "code")).as(url).isEqualTo(numbers(KeptValues.CODE, ROWS));
          } else {
            assertThat(dialect.id()).isIn("h2", "duckdb");
            assertThat(script.shortfalls())
                .anyMatch(s -> s.subject().startsWith("the numbering of code"));
          }
        });
  }

  /** Servers let several people in; each number is given once all the same. */
  @Test
  void twoAtOnceGetDifferentNumbers() throws Exception {
    onEach(
        KeptValues.draft(KeptValues.CODE),
        (url, dialect, script) -> {
          if (!List.of("postgresql", "mariadb").contains(dialect.id())) {
            return;
          }
          List<Thread> people =
              IntStream.range(0, 2)
                  .mapToObj(person -> Thread.ofPlatform().unstarted(() -> enter(url, person)))
                  .toList();
          people.forEach(Thread::start);
          for (Thread person : people) {
            person.join();
          }
          assertThat(column(rows(url), "code"))
              .as(url)
              .containsExactlyInAnyOrderElementsOf(numbers(KeptValues.CODE, 2 * EACH));
        });
  }

  private static void enter(String url, int person) {
    try {
      add(url, person * EACH, EACH);
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
  }

  @Test
  void everyWayToNumberAndToCheckIsKept() throws Exception {
    List<CodedNumber> codes =
        Stream.concat(Tries.of(3).mapToObj(seed -> RandomCodes.number(new Random(seed))), written())
            .filter(code -> code.greatest() >= ROWS)
            .toList();
    for (CodedNumber code : codes) {
      onEach(
          KeptValues.draft(code),
          (url, dialect, script) -> {
            if (dialect.upkeep().isPresent()) {
              add(url, 0, ROWS);
              assertThat(column(rows(url), "code")).as(url).isEqualTo(numbers(code, ROWS));
            }
          });
    }
  }

  /** One with periods and one without, for each check digit. */
  private static Stream<CodedNumber> written() {
    return Stream.of(CheckDigit.values())
        .flatMap(
            by ->
                Stream.of(
                    new CodedNumber(
                        List.of(
                            new Part.Fixed("K7'x"),
                            new Part.Year(true),
                            new Part.Month(),
                            new Part.Counter(2),
                            new Part.Check(by)),
                        CodedNumber.Restart.MONTHLY),
                    new CodedNumber(
                        List.of(
                            new Part.Counter(2),
                            new Part.Fixed("-"),
                            new Part.Day(),
                            new Part.Check(by)),
                        CodedNumber.Restart.NEVER)));
  }

  @Test
  void numbersThatAreBroughtAlongAreNotGivenAgainAndWhenNoneIsLeftItIsSaid() throws Exception {
    CodedNumber code =
        new CodedNumber(
            List.of(new Part.Year(false), new Part.Counter(1)), CodedNumber.Restart.YEARLY);
    int year = LocalDate.now().getYear();
    Draft draft = KeptValues.draft(code);
    Table log = draft.design().table(LOG);
    Draft withRow = ChangeRows.added(log).apply(draft);
    withRow =
        ChangeRows.cell(
                log,
                withRow.rows().of(LOG),
                0,
                log.field(new FieldId("code")),
                Optional.of(year + "3"))
            .apply(withRow);
    withRow =
        ChangeRows.cell(
                log,
                withRow.rows().of(LOG),
                0,
                log.field(new FieldId("entry_id")),
                Optional.of("1"))
            .apply(withRow);
    onEach(
        withRow,
        (url, dialect, script) -> {
          if (dialect.upkeep().isEmpty()) {
            return;
          }
          add(url, 1, 1);
          run(url, "INSERT INTO firing_log (entry_id, code) VALUES (3, '" + year + "7')");
          add(url, 3, 2);
          assertThat(column(rows(url), "code"))
              .as(url)
              .containsExactly(year + "3", year + "4", year + "7", year + "8", year + "9");
          assertThatThrownBy(() -> add(url, 5, 1))
              .as(url)
              .hasMessageContaining("no number is left");
        });
  }

  @Test
  void stampsFollowChangesAndWhatStaysIsNotChanged() throws Exception {
    onEach(
        KeptValues.draft(KeptValues.CODE),
        (url, dialect, script) -> {
          add(url, 0, 1);
          Map<String, String> made = rows(url).getFirst();
          assertThat(made.get("made_at")).as(url).isNotNull();
          assertThat(made.get("changed_at")).as(url).isNotNull();
          Thread.sleep(Duration.ofMillis(1_100));
          run(url, "UPDATE firing_log SET batch = 'B 1' WHERE entry_id = 1");
          Map<String, String> changed = rows(url).getFirst();
          assertThat(changed.get("made_at")).isEqualTo(made.get("made_at"));
          assertThat(changed.get("made_by")).isEqualTo(made.get("made_by"));
          if (dialect.upkeep().isEmpty()) {
            assertThat(changed.get("changed_at")).as(url).isEqualTo(made.get("changed_at"));
            assertThat(script.shortfalls())
                .anyMatch(s -> s.subject().startsWith("the stamp changed_at on changes"));
            return;
          }
          assertThat(changed.get("changed_at")).as(url).isGreaterThan(made.get("changed_at"));
          for (String set :
              List.of("batch = 'B 2'", "code = NULL", "made_at = NULL", "drawn = NULL")) {
            assertThatThrownBy(() -> run(url, "UPDATE firing_log SET " + set))
                .as("%s: %s", url, set)
                .hasMessageContaining("stays as it was entered");
          }
          run(url, "UPDATE firing_log SET batch = 'B 1', what = 'Glaze'");
          assertThat(rows(url).getFirst().get("what")).isEqualTo("Glaze");
        });
  }

  @Test
  void whatARowRefersToIsFilledInAsItIsThenAndStays() throws Exception {
    Draft draft = KeptValues.batches();
    onEach(
        draft,
        (url, dialect, script) -> {
          run(url, "INSERT INTO supplier (supplier_id, name) VALUES (1, 'Clay Barn')");
          run(url, "INSERT INTO clay (clay_id, price, from_id) VALUES (7, 12.5, 1)");
          run(url, "INSERT INTO clay (clay_id, price) VALUES (8, 3)");
          run(url, "INSERT INTO batch (batch_id, clay_id) VALUES (1, 7)");
          if (dialect.upkeep().isEmpty()) {
            assertThat(script.shortfalls())
                .anyMatch(s -> s.subject().startsWith("the filling in of price_then"));
            return;
          }
          run(url, "UPDATE clay SET price = 20 WHERE clay_id = 7");
          run(url, "UPDATE supplier SET name = 'Fen Clay'");
          run(url, "INSERT INTO batch (batch_id, clay_id) VALUES (2, 7), (3, NULL), (4, 8)");
          run(url, "INSERT INTO batch (batch_id, clay_id, price_then) VALUES (5, 7, 1)");
          assertThat(numbers(url, "price_then"))
              .as(url)
              .containsExactly("12.5", "20", null, "3", "1");
          assertThat(column(rows(url, "batch"), "from_id_name_then"))
              .as(url)
              .containsExactly("Clay Barn", "Fen Clay", null, null, "Fen Clay");
          assertThat(LiveDesign.of(draft, Target.of(url)).draft().design())
              .isEqualTo(draft.design());
        });
  }

  private static List<String> numbers(String url, String column) throws SQLException {
    return column(rows(url, "batch"), column).stream()
        .map(
            text -> text == null ? null : new BigDecimal(text).stripTrailingZeros().toPlainString())
        .toList();
  }

  @Test
  void whatWasShippedIsReadBackAsItWasAndChanges() throws Exception {
    Draft draft = KeptValues.draft(KeptValues.CODE);
    onEach(
        draft,
        (url, dialect, script) -> {
          LiveDesign live = LiveDesign.of(draft, Target.of(url));
          assertThat(live.notices()).as(url).isEmpty();
          assertThat(live.draft().design()).as(url).isEqualTo(draft.design());
        });
  }

  @Test
  void aFieldThatComesToBeNumberedGoesOnFromWhatIsThere() throws Exception {
    Draft before = KeptValues.draft(KeptValues.CODE);
    Table log = before.design().table(LOG);
    Draft plain = SetOrigin.entered(log, log.field(new FieldId("code"))).apply(before);
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = Shipment.dialectOf(url);
      Shipment.ship(plain, Target.of(url), RowsChoice.ALL, Progress.NONE);
      List<String> numbers = numbers(KeptValues.CODE, 4);
      IntStream.range(0, 3).forEach(i -> put(url, i, numbers.get(i)));
      change(url, plain, before);
      if (dialect.upkeep().isPresent()) {
        add(url, 3, 1);
        assertThat(column(rows(url), "code")).as(url).isEqualTo(numbers);
      }
      assertThat(LiveDesign.of(before, Target.of(url)).notices()).as(url).isEmpty();
      change(url, before, plain);
      run(url, "INSERT INTO firing_log (entry_id, what) VALUES (9, 'Raku')");
      assertThat(column(rows(url), "code").getLast()).as(url).isNull();
      assertThat(LiveDesign.of(plain, Target.of(url)).draft().design().tables()).hasSize(1);
      Databases.drop(url);
    }
  }

  private static void change(String url, Draft from, Draft to) throws Exception {
    LiveDesign live = LiveDesign.of(from, Target.of(url));
    Dialect dialect = Shipment.dialectOf(url);
    SchemaScript script = SchemaScript.changing(from, to, live.around(), dialect);
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement()) {
      for (String sql :
          Stream.of(
                  script.opening(),
                  script.statements().stream().map(Statement::sql).toList(),
                  script.closing())
              .flatMap(List::stream)
              .toList()) {
        statement.execute(sql);
      }
    }
  }

  private static void put(String url, int row, String code) {
    try {
      run(
          url,
          "INSERT INTO firing_log (entry_id, code) VALUES (" + (row + 1) + ", '" + code + "')");
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
  }
}
