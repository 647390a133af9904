package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import joiner.RandomRules;
import joiner.Tries;
import joiner.compare.Comparison;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A law: the rows that are shipped are the rows that are there, value by value. */
class ShippedRowsTest {
  private static final Field ID =
      Field.of("id", "Id", new FieldType.WholeNumber(Width.BITS_32)).withRequired(true);
  private static final Field TEXT = Field.of("note", "Note", new FieldType.LongText());
  private static final Table NOTES =
      Table.of("note", "Note", new Noun("note", "notes"))
          .withFields(List.of(ID, TEXT))
          .withPrimaryKey(List.of(ID.id()));

  @TempDir private Path folder;

  private static Draft notes(List<String> texts) {
    var rows = new Rows.Builder(NOTES.fieldIds());
    for (int i = 0; i < texts.size(); i++) {
      rows.cell(0, String.valueOf(i));
      rows.cell(1, texts.get(i));
      rows.endRow();
    }
    return new Draft(
        Design.empty("d", "D").withTableAdded(NOTES),
        new SampleRows(Map.of(NOTES.id(), rows.build())));
  }

  private static void assertThere(Draft draft, Table table, String url) throws Exception {
    Shipment shipment = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
    assertThat(shipment.verification().differences()).as(url).isEmpty();
    LiveDesign live = LiveDesign.read(Target.of(url), "There", 100_000, Progress.NONE);
    List<String> names = table.fields().stream().map(Field::name).toList();
    assertThat(LiveRows.values(table, names, live.draft()))
        .as(url)
        .isEqualTo(LiveRows.values(table, names, draft));
  }

  /** SQLite has no users, and says so. */
  @Test
  void whoEntersARowIsKnownToTheDatabase() throws Exception {
    Field by =
        Field.of("entered_by", "Entered by", new FieldType.Text(80))
            .withDefault(Optional.of(new Formula("CURRENT_USER")));
    Draft plain = notes(List.of());
    Draft draft =
        plain.withDesign(plain.design().withTable(NOTES.id(), table -> table.withFieldAdded(by)));
    for (String url : Databases.fresh(folder)) {
      Shipment shipment = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      assertThat(shipment.verification().differences()).as(url).isEmpty();
      boolean users = !url.startsWith("jdbc:sqlite:");
      SchemaScript script = SchemaScript.of(draft, Shipment.dialectOf(url), RowsChoice.ALL);
      assertThat(script.shortfalls().isEmpty()).as(url).isEqualTo(users);
      if (users) {
        assertThat(Comparison.between(draft, LiveDesign.of(draft, Target.of(url)).draft()))
            .as(url)
            .isEmpty();
      }
      try (Connection connection = DriverManager.getConnection(url);
          Statement statement = connection.createStatement()) {
        statement.execute("INSERT INTO note (" + ID.name() + ") VALUES (7)");
        try (ResultSet row = statement.executeQuery("SELECT entered_by FROM note")) {
          assertThat(row.next()).isTrue();
          String name = row.getString(1);
          boolean nameless = url.startsWith("jdbc:h2:"); // Its first user may have no name.
          assertThat(name != null && (nameless || !name.isBlank())).as(url).isEqualTo(users);
        }
      }
    }
  }

  /** Where a secret is required the rows come in with the mark that opens nothing. */
  @Test
  void rowsWithARequiredSecretAreLocked() throws Exception {
    Field secret = Field.of("code", "Code", new FieldType.Secret(60)).withRequired(true);
    Draft plain = notes(List.of("Raku", "Glaze"));
    Draft draft =
        plain.withDesign(
            plain.design().withTable(NOTES.id(), table -> table.withFieldAdded(secret)));
    for (String url : Databases.fresh(folder)) {
      Shipment shipment = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      assertThat(shipment.verification().differences()).as(url).isEmpty();
      LiveDesign live = LiveDesign.read(Target.of(url), "There", 100_000, Progress.NONE);
      assertThat(
              LiveRows.values(draft.design().table(NOTES.id()), List.of("code"), live.draft())
                  .toString())
          .as(url)
          .contains("!");
    }
  }

  @Test
  void textsComeBackWhateverTheyHold() throws Exception {
    Draft draft =
        notes(
            List.of(
                "\t",
                "a\tb",
                "\n",
                "a\r\nb",
                "\\N",
                "\\.",
                "\\",
                "\"",
                "\"\"",
                ",",
                "a,\"b\"\n",
                "NULL",
                "null",
                " a ",
                "''",
                "'",
                "é🏺釉",
                "\u0001",
                "{}",
                "1e3",
                "\\t",
                "x".repeat(3_000_000)));
    for (String url : Databases.fresh(folder)) {
      assertThere(draft, NOTES, url);
    }
  }

  @Test
  void valuesOfEveryTypeComeBack() throws Exception {
    for (long seed : Tries.of(3).toArray()) {
      Draft draft = new RandomRules(seed).draft(40);
      for (String url : Databases.fresh(folder)) {
        assertThere(draft, RandomRules.table(), url);
        Databases.drop(url);
      }
    }
  }

  @Test
  void whatDoesNotFitIsRefusedByTheEngineAndNothingStays() throws Exception {
    Table dated = NOTES.withField(TEXT.id(), field -> field.withType(new FieldType.Date()));
    Draft notes = notes(List.of("2026-03-14", "soon"));
    Draft draft = new Draft(Design.empty("d", "D").withTableAdded(dated), notes.rows());
    for (String url : Databases.fresh(folder)) {
      assertThatThrownBy(() -> Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE))
          .as(url)
          .isInstanceOf(TargetRefusedException.class);
      assertThat(
              LiveDesign.read(Target.of(url), "There", 1, Progress.NONE).draft().design().tables())
          .as(url)
          .isEmpty();
    }
  }

  @Test
  void loadingCanBeStoppedWithinATable() throws Exception {
    Draft draft = notes(java.util.Collections.nCopies(5_000, "a"));
    for (String url : Databases.fresh(folder)) {
      assertThatThrownBy(
              () ->
                  Shipment.ship(
                      draft,
                      Target.of(url),
                      RowsChoice.ALL,
                      new Progress() {
                        private int asked;

                        @Override
                        public boolean reached(int done, int total, String doing) {
                          return ++asked < 4;
                        }
                      }))
          .as(url)
          .isInstanceOf(CancellationException.class);
      assertThat(
              LiveDesign.read(Target.of(url), "There", 1, Progress.NONE).draft().design().tables())
          .as(url)
          .isEmpty();
    }
  }
}
