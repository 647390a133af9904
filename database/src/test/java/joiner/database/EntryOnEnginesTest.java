package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.Tries;
import joiner.ddl.RowsChoice;
import joiner.edit.EnterRows;
import joiner.engine.Dialect;
import joiner.entry.Entered;
import joiner.entry.Entry;
import joiner.entry.EntryTrial;
import joiner.entry.KnownTrials;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** PostgreSQL takes a row that is entered exactly where Joiner refuses nothing of it. */
class EntryOnEnginesTest {
  @TempDir private Path folder;
  private final KnownTrials known = new KnownTrials();
  private int taken;
  private int refused;

  @Test
  void postgreSqlTakesWhatIsNotRefused() throws Exception {
    Draft draft = Pottery.demo();
    String url =
        Databases.fresh(folder).stream()
            .filter(u -> u.startsWith("jdbc:postgresql:"))
            .findFirst()
            .orElseThrow();
    Dialect dialect = Shipment.dialectOf(url);
    Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
    try (Connection connection = DriverManager.getConnection(url)) {
      connection.setAutoCommit(false);
      for (long seed : Tries.of(400).toArray()) {
        compare(draft, connection, dialect, seed);
      }
    }
    Databases.drop(url);
    System.out.println("rows entered: " + taken + " taken, " + refused + " refused");
    assertThat(taken).isGreaterThan(Tries.least(40));
    assertThat(refused).isGreaterThan(Tries.least(100));
  }

  private void compare(Draft draft, Connection connection, Dialect dialect, long seed)
      throws SQLException {
    var random = new Random(seed);
    List<Table> tables =
        draft.design().tables().stream().filter(t -> draft.rows().of(t.id()).count() > 0).toList();
    Table table = tables.get(random.nextInt(tables.size()));
    Entered entered = entered(draft, table, random);
    EnterRows edit = new Entry(draft, Pottery.CLOCK, random).of("a row", entered);
    EntryTrial trial = EntryTrial.of(draft, edit, known, Pottery.CLOCK);
    Optional<String> refusal = insert(draft, connection, dialect, edit);
    assertThat(refusal.isPresent())
        .as("%d: %s: %s but PostgreSQL: %s", seed, edit, trial.refusals(), refusal)
        .isEqualTo(trial.isRefused());
    taken += refusal.isPresent() ? 0 : 1;
    refused += refusal.isPresent() ? 1 : 0;
  }

  /** A row like one that is there, under keys of its own, with some cells from other rows. */
  private static Entered entered(Draft draft, Table table, Random random) {
    Rows rows = draft.rows().of(table.id());
    int like = random.nextInt(rows.count());
    Entered entered = Entered.added(table.id());
    for (Field field : table.fields()) {
      if (field.isComputed()) {
        continue;
      }
      int from = random.nextInt(6) == 0 ? random.nextInt(rows.count()) : like;
      Optional<String> cell = rows.cell(from, field.id());
      boolean own = random.nextInt(4) > 0 && isOfOwnKey(draft, table, field.id());
      Optional<String> text = own ? cell.map(t -> fresh(t, random)) : cell;
      if (text.isPresent() && random.nextInt(25) > 0) {
        entered = entered.with(field.id(), text.get());
      }
    }
    return entered;
  }

  private static boolean isOfOwnKey(Draft draft, Table table, FieldId field) {
    return table.keys().stream().anyMatch(key -> key.contains(field))
        && draft.design().parentsOf(table.id()).stream()
            .noneMatch(r -> r.childFields().contains(field));
  }

  private static String fresh(String text, Random random) {
    return text.matches("\\d+")
        ? String.valueOf(1_000 + random.nextInt(8_000))
        : text.replaceFirst("[0-9A-Za-z](?=[^0-9A-Za-z]*$)", String.valueOf(random.nextInt(10)));
  }

  /** Why PostgreSQL does not take the rows; empty where it does. */
  private static Optional<String> insert(
      Draft draft, Connection connection, Dialect dialect, EnterRows edit) throws SQLException {
    try {
      for (EnterRows.One one : edit.rows()) {
        Table table = draft.design().table(one.table());
        var fields = new ArrayList<FieldId>();
        var texts = new ArrayList<String>();
        for (Map.Entry<FieldId, Optional<String>> cell : one.cells().entrySet()) {
          cell.getValue()
              .ifPresent(
                  text -> {
                    fields.add(cell.getKey());
                    texts.add(text);
                  });
        }
        String sql =
            "INSERT INTO "
                + dialect.name(table.name())
                + " ("
                + dialect.names(table.namesOf(fields))
                + ") VALUES ("
                + String.join(", ", IntStream.range(0, texts.size()).mapToObj(i -> "?").toList())
                + ")";
        try (PreparedStatement statement = connection.prepareStatement(sql)) {
          for (int i = 0; i < texts.size(); i++) {
            statement.setObject(i + 1, texts.get(i), Types.OTHER);
          }
          statement.execute();
        }
      }
      try (Statement end = connection.createStatement()) {
        end.execute("SET CONSTRAINTS ALL IMMEDIATE");
      }
      return Optional.empty();
    } catch (SQLException refused) {
      return Optional.of(refused.getMessage());
    } finally {
      connection.rollback();
    }
  }
}
