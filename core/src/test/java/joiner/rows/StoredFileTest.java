package joiner.rows;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.audit.Violation;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.ByteSize;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.MediaType;
import joiner.model.Noun;
import joiner.model.Table;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files kept in cells, their kinds and sizes. */
class StoredFileTest {
  private static final FieldType.Content IMAGE = new FieldType.Content(MediaType.IMAGES, 20);

  private static byte[] bytes(String latin) {
    return latin.getBytes(StandardCharsets.ISO_8859_1);
  }

  /** First bytes as the formats themselves state them, from memory. */
  @Test
  void aFileIsKnownByItsFirstBytes() {
    assertThat(MediaType.of(bytes("\u0089PNG\r\n\u001a\n…"))).contains(MediaType.PNG);
    assertThat(MediaType.of(bytes("\u00ff\u00d8\u00ff\u00e0"))).contains(MediaType.JPEG);
    assertThat(MediaType.of(bytes("GIF89a"))).contains(MediaType.GIF);
    assertThat(MediaType.of(bytes("RIFF\u0024\0\0\0WEBPVP8 "))).contains(MediaType.WEBP);
    assertThat(MediaType.of(bytes("%PDF-1.7"))).contains(MediaType.PDF);
    assertThat(MediaType.of(bytes("PK\u0003\u0004"))).contains(MediaType.OOXML);
    assertThat(MediaType.of(bytes("kiln"))).isEmpty();
    assertThat(MediaType.of(new byte[0])).isEmpty();
  }

  @Property
  void aCellGivesTheFileBack(@ForAll byte[] content) {
    String cell = StoredFile.cell(content);
    assertThat(StoredFile.content(cell, new FieldType.Content(List.of(), 1))).contains(content);
    assertThat(new Value.Bytes(cell).count()).isEqualTo(content.length);
    assertThat(new Value.Bytes(cell).hex()).hasSize(2 * content.length);
  }

  @Test
  void peopleReadTheKindAndTheSize() {
    byte[] pdf = new byte[12_345];
    System.arraycopy(bytes("%PDF-1.7"), 0, pdf, 0, 8);
    assertThat(StoredFile.words(StoredFile.cell(pdf))).isEqualTo("PDF · 12.3 kB");
    assertThat(StoredFile.words(StoredFile.cell(bytes("kiln")))).isEqualTo("file · 4 bytes");
    assertThat(StoredFile.words("no file!")).isEqualTo("no file!");
  }

  @ParameterizedTest
  @CsvSource({
    "2 MB,2000000",
    "500kb,500000",
    "1.5 MB,1500000",
    "7,7",
    "3 bytes,3",
    "1 GB,1000000000"
  })
  void sizesAreReadAsTheyAreWritten(String text, int bytes) {
    assertThat(ByteSize.read(text)).hasValue(bytes);
  }

  @ParameterizedTest
  @CsvSource({"0", "-1", "1.5", "3 GB", "2 TB", "big", "''"})
  void whatIsNoSizeIsNone(String text) {
    assertThat(ByteSize.read(text)).isEmpty();
  }

  @Property
  void aSizeIsReadAsItIsSaid(@ForAll @IntRange(min = 1) int bytes) {
    assertThat(ByteSize.read(ByteSize.of(bytes))).hasValue(bytes);
  }

  @Test
  void theAuditNamesWhatIsNoFileTooGreatOrOfAnotherKind() {
    Table piece =
        Table.of("piece", "Piece", new Noun("piece", "pieces"))
            .withFields(List.of(Field.of("photo", "Photo", IMAGE)));
    List<List<String>> cells =
        List.of(
            List.of(StoredFile.cell(bytes("GIF89a"))),
            List.of("not Base64!"),
            List.of(StoredFile.cell(bytes("%PDF-1.7"))),
            List.of(StoredFile.cell(bytes("GIF89a" + "x".repeat(15)))));
    var draft =
        new Draft(
            Design.of("d", "D", "", List.of(), List.of(piece), List.of(), Extras.NONE),
            new SampleRows(Map.of(piece.id(), Pottery.rows(piece, cells))));
    List<Violation> found = Audit.of(draft, Pottery.CLOCK).violations().toList();
    assertThat(found)
        .extracting(Violation::rows)
        .containsExactly(List.of(2), List.of(4), List.of(3));
    assertThat(found.get(1).message()).contains("at most 20 bytes", "GIF · 21 bytes");
    assertThat(found.get(2).message()).contains("PNG, JPEG, GIF or WEBP", "PDF · 8 bytes");
  }

  @Test
  void formulasAskForAFileAndItsSizeOnly() {
    Table piece =
        Table.of("piece", "Piece", new Noun("piece", "pieces"))
            .withFields(
                List.of(
                    Field.of("photo", "Photo", IMAGE),
                    Field.of("name", "Name", new FieldType.Text(20))));
    var scope = joiner.meaning.TableMeaning.of(piece).scope();
    for (String sound : List.of("photo IS NOT NULL", "OCTET_LENGTH(photo) < 10")) {
      assertThat(new Formula(sound).condition(scope)).as(sound).isInstanceOf(Checked.Sound.class);
    }
    for (String faulty :
        List.of("photo = 'x'", "photo = photo", "photo || 'x' = 'y'", "OCTET_LENGTH(name) = 1")) {
      assertThat(new Formula(faulty).condition(scope))
          .as(faulty)
          .isInstanceOf(Checked.Faulty.class);
    }
  }
}
