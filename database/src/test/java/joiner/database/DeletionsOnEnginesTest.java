package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.ddl.RowsChoice;
import joiner.deletion.Deletions;
import joiner.deletion.Outcome;
import joiner.deletion.Outcome.Verdict;
import joiner.engine.Dialect;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is said of a deletion is what PostgreSQL, MariaDB, SQLite and H2 do. */
class DeletionsOnEnginesTest {
  private static final int GROUPS = 12;

  @TempDir private Path folder;
  private int bereft;
  private int edited;
  private final Map<Verdict, Integer> told = new EnumMap<>(Verdict.class);

  @Test
  void everyEngineDoesWhatIsSaid() throws Exception {
    for (long seed : Tries.of(5).toArray()) {
      Draft draft = RandomLinks.draft(seed, GROUPS);
      for (String url : Databases.fresh(folder)) {
        if (!url.startsWith("jdbc:duckdb:")) { // It knows no action but refusing.
          Draft said = url.startsWith("jdbc:mariadb:") ? withoutDefaults(draft) : draft;
          compare(said, url, new Random(seed));
        }
        Databases.drop(url);
      }
    }
    System.out.println("deletions compared: " + told + ", refused at the end: " + bereft);
    assertThat(edited).isGreaterThan(300);
    assertThat(bereft).isGreaterThan(30);
    assertThat(told.get(Verdict.DONE)).isGreaterThan(300);
    assertThat(told.get(Verdict.REFUSED)).isGreaterThan(300);
  }

  /** MariaDB takes SET DEFAULT in InnoDB for nothing; Joiner says so and writes another action. */
  private static Draft withoutDefaults(Draft draft) {
    List<Relationship> others =
        draft.design().relationships().stream()
            .map(
                r ->
                    r.onDelete() == ReferentialAction.SET_DEFAULT
                        ? r.withActions(ReferentialAction.NO_ACTION, ReferentialAction.NO_ACTION)
                        : r)
            .toList();
    return draft.withDesign(draft.design().withRelationships(others));
  }

  private void compare(Draft draft, String url, Random random) throws Exception {
    Dialect dialect = Shipment.dialectOf(url);
    Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
    var deletions = new Deletions(draft, Pottery.CLOCK);
    try (Connection connection = DriverManager.getConnection(url);
        Statement statement = connection.createStatement()) {
      if (url.startsWith("jdbc:sqlite:")) {
        statement.execute("PRAGMA foreign_keys = ON");
      }
      connection.setAutoCommit(false);
      for (Table table : draft.design().tables()) {
        Rows rows = draft.rows().of(table.id());
        for (int i = 0; i < Math.min(3, rows.count()); i++) {
          var some = new BitSet();
          some.set(random.nextInt(rows.count()));
          if (random.nextInt(3) == 0) {
            some.set(random.nextInt(rows.count()));
          }
          Outcome said = deletions.of(table.id(), some);
          Optional<String> refusal = delete(statement, dialect, table, rows, some);
          if (refusal.isEmpty() && url.startsWith("jdbc:postgresql:")) {
            refusal = atTheEnd(draft, statement, said);
          }
          String which = "%s of %s on %s: %s".formatted(some, table.name(), url, said);
          check(draft, deletions, statement, dialect, said, refusal, which);
          told.merge(said.verdict(), 1, Integer::sum);
          connection.rollback();
        }
      }
    }
  }

  /** What PostgreSQL says when a transaction ends, which is that a row is left without a child. */
  private Optional<String> atTheEnd(Draft draft, Statement statement, Outcome said) {
    String message = "";
    try {
      statement.execute("SET CONSTRAINTS ALL IMMEDIATE");
    } catch (SQLException refused) {
      message = refused.getMessage();
    }
    assertThat(message.isEmpty()).as("%s: %s", said, message).isEqualTo(said.childless().isEmpty());
    if (message.isEmpty()) {
      return Optional.empty();
    }
    bereft++;
    List<String> names =
        said.childless().keySet().stream()
            .map(draft.design()::relationship)
            .map(r -> draft.design().table(r.parent()).name())
            .toList();
    assertThat(names).as(message).anyMatch(message::contains);
    return Optional.of(message);
  }

  /** Why the engine does not delete the rows; empty where it did. */
  private static Optional<String> delete(
      Statement statement, Dialect dialect, Table table, Rows rows, BitSet some) {
    String which =
        some.stream()
            .mapToObj(row -> rows.cell(row, new FieldId("id")).orElseThrow())
            .collect(Collectors.joining(", "));
    try {
      statement.execute(
          "DELETE FROM " + dialect.name(table.name()) + " WHERE id IN (" + which + ")");
      return Optional.empty();
    } catch (SQLException refused) {
      return Optional.of(refused.getMessage());
    }
  }

  private void check(
      Draft draft,
      Deletions deletions,
      Statement statement,
      Dialect dialect,
      Outcome said,
      Optional<String> refusal,
      String which)
      throws SQLException {
    if (said.verdict() == Verdict.DONE) {
      assertThat(refusal).as(which).isEmpty();
    }
    if (said.verdict() == Verdict.REFUSED) {
      assertThat(refusal).as(which).isPresent();
    }
    if (refusal.isPresent()) {
      return;
    }
    if (said.verdict() == Verdict.DONE) {
      Draft after = deletions.edit("some", said).apply(draft);
      for (Table table : draft.design().tables()) {
        assertThat(all(statement, dialect, table))
            .as("%s after %s", table.name(), which)
            .containsExactlyInAnyOrderElementsOf(all(after, table));
      }
      edited++;
    }
    for (Table table : draft.design().tables()) {
      if (said.gone().containsKey(table.id())) {
        Rows rows = draft.rows().of(table.id());
        BitSet gone = said.gone().get(table.id());
        List<String> left =
            IntStream.range(0, rows.count())
                .filter(row -> !gone.get(row))
                .mapToObj(row -> rows.cell(row, new FieldId("id")).orElseThrow())
                .toList();
        assertThat(column(statement, dialect, table, "id"))
            .as("what is left of %s after %s", table.name(), which)
            .containsExactlyInAnyOrderElementsOf(left);
      }
    }
    for (Relationship r : draft.design().relationships()) {
      if (said.unlinked().containsKey(r.id()) && r.onDelete() == ReferentialAction.SET_NULL) {
        Table child = draft.design().table(r.child());
        Rows rows = draft.rows().of(child.id());
        var unlinked =
            said.unlinked().get(r.id()).stream()
                .mapToObj(row -> rows.cell(row, new FieldId("id")).orElseThrow())
                .collect(Collectors.toCollection(TreeSet::new));
        String fk = child.field(r.childFields().getFirst()).name();
        assertThat(empty(statement, dialect, child, fk))
            .as("who lost a link by %s after %s", r.name(), which)
            .containsAll(unlinked);
      }
    }
  }

  /** All rows of a table with all their values, as one text each. */
  private static List<String> all(Statement statement, Dialect dialect, Table table)
      throws SQLException {
    var lines = new ArrayList<String>();
    List<String> names = table.fields().stream().map(Field::name).toList();
    String sql = "SELECT " + dialect.names(names) + " FROM " + dialect.name(table.name());
    try (ResultSet rows = statement.executeQuery(sql)) {
      while (rows.next()) {
        var cells = new ArrayList<String>();
        for (int i = 1; i <= names.size(); i++) {
          cells.add(String.valueOf(rows.getString(i)));
        }
        lines.add(String.join("|", cells));
      }
    }
    return lines;
  }

  private static List<String> all(Draft draft, Table table) {
    Rows rows = draft.rows().of(table.id());
    return IntStream.range(0, rows.count())
        .mapToObj(
            row ->
                table.fieldIds().stream()
                    .map(field -> rows.cell(row, field).orElse("null"))
                    .collect(Collectors.joining("|")))
        .toList();
  }

  private static List<String> column(
      Statement statement, Dialect dialect, Table table, String column) throws SQLException {
    return texts(
        statement, "SELECT " + dialect.name(column) + " FROM " + dialect.name(table.name()));
  }

  private static List<String> empty(
      Statement statement, Dialect dialect, Table table, String column) throws SQLException {
    return texts(
        statement,
        "SELECT id FROM "
            + dialect.name(table.name())
            + " WHERE "
            + dialect.name(column)
            + " IS NULL");
  }

  private static List<String> texts(Statement statement, String sql) throws SQLException {
    var texts = new ArrayList<String>();
    try (ResultSet rows = statement.executeQuery(sql)) {
      while (rows.next()) {
        texts.add(rows.getString(1));
      }
    }
    return texts;
  }
}
