package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import joiner.Pottery;
import joiner.ddl.RowsChoice;
import joiner.model.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files that hold a whole schema. */
class WholeSchemaTest {
  @TempDir private Path folder;

  private static WholeSchema read(Path file, int rows) throws Exception {
    return WholeSchema.read(file, "Studio", Optional.empty(), rows, Progress.NONE);
  }

  @ParameterizedTest
  @CsvSource({
    "sqlite,studio.db,studio.db",
    "duckdb,studio.data,studio.data",
    "h2,studio,studio.mv.db"
  })
  void aDatabaseInAFileIsKnownByItsFirstBytes(String engine, String place, String file)
      throws Exception {
    String url = "jdbc:" + engine + ":" + folder.resolve(place);
    Shipment.ship(Pottery.demo(), Target.of(url), RowsChoice.ALL, Progress.NONE);
    Path made = folder.resolve(file);
    assertThat(WholeSchema.is(made)).isTrue();
    WholeSchema schema = read(made, 3);
    assertThat(schema.draft().design().tables()).hasSize(16);
    Table piece = schema.draft().design().tableNamed("piece").orElseThrow();
    assertThat(schema.draft().rows().of(piece.id()).count()).isEqualTo(3);
    assertThat(schema.notices()).anyMatch(notice -> notice.contains("piece has more rows"));
  }

  @Test
  void aScriptIsKnownByItsName() throws Exception {
    Path script = folder.resolve("kiln.SQL");
    Files.writeString(script, "CREATE TABLE kiln (kiln_id int PRIMARY KEY); CREATE VIEW v AS x;");
    assertThat(WholeSchema.is(script)).isTrue();
    WholeSchema schema = read(script, 0);
    assertThat(schema.draft().design().tableNamed("kiln")).isPresent();
    assertThat(schema.notices()).singleElement().asString().contains("CREATE VIEW");
  }

  @Test
  void otherFilesAreNone() throws IOException {
    Path text = folder.resolve("kilns.csv");
    Files.writeString(text, "a,DUCK\n", StandardCharsets.UTF_8);
    assertThat(WholeSchema.is(text)).isFalse();
    assertThat(WholeSchema.is(folder.resolve("none.csv"))).isFalse();
    assertThatThrownBy(() -> read(folder.resolve("none.sql"), 0)).isInstanceOf(IOException.class);
  }
}
