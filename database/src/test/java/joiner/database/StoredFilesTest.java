package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.Random;
import joiner.Pottery;
import joiner.ddl.RowsChoice;
import joiner.engine.Dialect;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.SampleRows;
import joiner.rows.StoredFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whole files in databases: that every byte comes through, and that the size is kept. */
class StoredFilesTest {
  private static final int MOST = 300;

  @TempDir private Path folder;

  /** Photos of pieces: all 256 bytes, nothing at all, and what random holds. */
  private static List<byte[]> photos() {
    byte[] every = new byte[256];
    for (int i = 0; i < every.length; i++) {
      every[i] = (byte) i;
    }
    byte[] random = new byte[MOST];
    new Random(7).nextBytes(random);
    return List.of(every, new byte[] {0}, random);
  }

  private static Draft pieces() {
    Table piece =
        Table.of("piece", "Piece", new Noun("piece", "pieces"))
            .withFields(
                List.of(
                    Field.of("number", "Number", new FieldType.WholeNumber(Width.BITS_32)),
                    Field.of("photo", "Photo", new FieldType.Content(List.of(), MOST))))
            .withPrimaryKey(List.of(new FieldId("number")));
    List<List<String>> rows =
        java.util.stream.IntStream.range(0, photos().size())
            .mapToObj(i -> List.of(String.valueOf(i), StoredFile.cell(photos().get(i))))
            .toList();
    return new Draft(
        Design.of("d", "D", "", List.of(), List.of(piece), List.of(), Extras.NONE),
        new SampleRows(Map.of(piece.id(), Pottery.rows(piece, rows))));
  }

  @Test
  void everyByteComesThrough() throws Exception {
    for (String url : Databases.fresh(folder)) {
      var shipped =
          Shipment.ship(pieces(), Target.of(url), RowsChoice.ALL, Progress.NONE).verification();
      assertThat(shipped.differences()).as(url).isEmpty();
      assertThat(read(url)).as(url).containsExactlyElementsOf(photos());
    }
  }

  @Test
  void writtenOutInAScriptTheyAreTheSame() throws Exception {
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = LiveTarget.dialectOf(url);
      try (LiveTarget live = LiveTarget.connect(Target.of(url))) {
        for (var statement :
            joiner.ddl.SchemaScript.of(pieces(), dialect, RowsChoice.ALL).statements()) {
          live.run(statement.sql());
        }
        live.commit();
      }
      assertThat(read(url)).as(url).containsExactlyElementsOf(photos());
    }
  }

  @Test
  void aFileBeyondTheSizeIsRefused() throws Exception {
    for (String url : Databases.fresh(folder)) {
      Shipment.ship(pieces(), Target.of(url), RowsChoice.NONE, Progress.NONE);
      assertThat(takes(url, 1, new byte[MOST])).as(url).isTrue();
      assertThat(takes(url, 2, new byte[MOST + 1])).as(url).isFalse();
    }
  }

  private static boolean takes(String url, int number, byte[] photo) throws SQLException {
    try (Connection connection = DriverManager.getConnection(url);
        PreparedStatement insert =
            connection.prepareStatement("INSERT INTO piece (number, photo) VALUES (?, ?)")) {
      insert.setInt(1, number);
      insert.setBytes(2, photo);
      insert.executeUpdate();
      return true;
    } catch (SQLException refused) {
      return false;
    }
  }

  private static List<byte[]> read(String url) throws SQLException {
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement();
        ResultSet rows = statement.executeQuery("SELECT photo FROM piece ORDER BY number")) {
      var found = new java.util.ArrayList<byte[]>();
      while (rows.next()) {
        found.add(rows.getBytes(1));
      }
      return found;
    }
  }
}
