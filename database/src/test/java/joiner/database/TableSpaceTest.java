package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import joiner.ddl.RowsChoice;
import joiner.ddl.TableSpace;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What rows are said to take is what engines report that they take. */
class TableSpaceTest {
  private static final int ROWS = 20_000;

  /** An estimate: whoever plans a disk wants to know whether it is 5 MB or 50. */
  private static final Percentage NEAR = Percentage.withPercentage(25);

  @TempDir private Path folder;

  private static Draft pieces() {
    List<Field> fields =
        List.of(
            Field.of("piece_id", "Piece", new FieldType.Counter(Width.BITS_32)).withRequired(true),
            Field.of("mark", "Mark", new FieldType.Text(10)).withRequired(true),
            Field.of("form", "Form", new FieldType.Text(40)),
            Field.of("grams", "Grams", new FieldType.WholeNumber(Width.BITS_16)),
            Field.of("price", "Price", new FieldType.Money(8, 2)),
            Field.of("made_on", "Made on", new FieldType.Date()).withRequired(true),
            Field.of("fired_at", "Fired at", new FieldType.DateTime(false)),
            Field.of("sold", "Sold", new FieldType.TrueFalse()).withRequired(true),
            Field.of("remark", "Remark", new FieldType.LongText()));
    Table piece =
        Table.of("piece", "Piece", new Noun("piece", "pieces"))
            .withFields(fields)
            .withPrimaryKey(List.of(fields.getFirst().id()))
            .withIndexAdded(new Index("ix_piece_mark", List.of(fields.get(1).id())));
    var rows = new Rows.Builder(piece.fieldIds());
    var random = new Random(20260314);
    for (int i = 0; i < ROWS; i++) {
      rows.cell(0, String.valueOf(i + 1));
      rows.cell(1, "P-" + (10_000_000 + i));
      rows.cell(2, "a bowl with a lid".substring(0, 4 + random.nextInt(14)));
      rows.cell(3, String.valueOf(100 + random.nextInt(4_000)));
      rows.cell(4, (10 + random.nextInt(300)) + ".50");
      rows.cell(5, "2026-0" + (1 + random.nextInt(9)) + "-14");
      rows.cell(6, random.nextInt(3) == 0 ? "" : "2026-03-14T18:05:00");
      rows.cell(7, random.nextBoolean() ? "true" : "false");
      rows.cell(8, random.nextInt(4) == 0 ? "a crack by the handle, mended" : "");
      rows.endRow();
    }
    return new Draft(
        Design.empty("d", "D").withTableAdded(piece),
        new SampleRows(Map.of(piece.id(), rows.build())));
  }

  @Test
  void rowsTakeAboutAsMuchRoomAsEnginesReport() throws Exception {
    Draft draft = pieces();
    Table piece = draft.design().tables().iterator().next();
    int compared = 0;
    for (String url : Databases.fresh(folder)) {
      Target target = Target.of(url);
      Dialect dialect = Dialects.ofUrl(url).orElseThrow();
      var said = TableSpace.of(draft, piece.id(), dialect);
      if (said.isPresent()) {
        Shipment.ship(draft, target, RowsChoice.ALL, Progress.NONE);
        assertThat(said.get().of(ROWS)).as(url).isCloseTo(reported(url), NEAR);
        compared++;
      }
    }
    assertThat(compared).as("engines compared").isEqualTo(3);
  }

  private double reported(String url) throws Exception {
    if (url.startsWith("jdbc:sqlite:")) {
      return Files.size(Path.of(url.substring("jdbc:sqlite:".length()).split("\\?")[0]));
    }
    if (url.startsWith("jdbc:mariadb:")) {
      Databases.column(url, "ANALYZE TABLE piece");
      return number(
          url,
          "SELECT data_length + index_length FROM information_schema.tables"
              + " WHERE table_schema = DATABASE() AND table_name = 'piece'");
    }
    return number(url, "SELECT pg_relation_size('piece') + pg_indexes_size('piece')");
  }

  private static double number(String url, String sql) throws Exception {
    return Double.parseDouble(Databases.column(url, sql).getFirst());
  }
}
