package joiner.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import joiner.Pottery;
import joiner.format.UnreadableFileException;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Valid files with bytes flipped, cut out, doubled and put in: whatever comes of them, it is a
 * table or a message with the file's name, soon.
 */
class ReaderFuzzTest {
  @TempDir private Path folder;

  @ParameterizedTest
  @CsvSource({"csv, 2500", "json, 2500", "xml, 1500", "xlsx, 700", "ods, 700"})
  void aDamagedFileGivesATableOrAMessage(String ending, int cases) throws Exception {
    byte[] valid = valid(ending);
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(20_260_314);
    Path file = folder.resolve("damaged." + ending);
    int read = 0;
    for (int i = 0; i < cases; i++) {
      Files.write(file, damaged(valid, random));
      read += assertTimeoutPreemptively(Duration.ofSeconds(20), () -> reads(file)) ? 1 : 0;
    }
    assertThat(read).as("some damage leaves a readable file").isPositive();
  }

  private static boolean reads(Path file) throws IOException {
    try {
      Source source = SourceFile.read(file, ReadingOptions.DETECT);
      for (SourceTable table : source.tables()) {
        assertThat(table.cells().columns()).allMatch(c -> c.rows() == table.cells().rows());
      }
      return true;
    } catch (UnreadableFileException e) {
      assertThat(e).hasMessageContaining(String.valueOf(file.getFileName()));
      return false;
    }
  }

  private static byte[] damaged(byte[] valid, RandomGenerator random) {
    byte[] bytes = valid.clone();
    for (int wounds = random.nextInt(1, 6); wounds > 0; wounds--) {
      int at = random.nextInt(bytes.length);
      int length = Math.min(bytes.length - at, random.nextInt(1, 40));
      switch (random.nextInt(5)) {
        case 0 -> bytes[at] = (byte) random.nextInt(256);
        case 1 -> bytes[at] = (byte) "\"'<>{}[],;\n\t\0=&".charAt(random.nextInt(15));
        case 2 -> bytes = cut(bytes, at, length);
        case 3 -> bytes = doubled(bytes, at, length);
        default -> bytes = cut(bytes, at, bytes.length - at);
      }
      if (bytes.length == 0) {
        return bytes;
      }
    }
    return bytes;
  }

  private static byte[] cut(byte[] bytes, int at, int length) {
    var out = new ByteArrayOutputStream();
    out.write(bytes, 0, at);
    out.write(bytes, at + length, bytes.length - at - length);
    return out.toByteArray();
  }

  private static byte[] doubled(byte[] bytes, int at, int length) {
    var out = new ByteArrayOutputStream();
    out.write(bytes, 0, at + length);
    out.write(bytes, at, bytes.length - at);
    return out.toByteArray();
  }

  private static byte[] valid(String ending) throws IOException {
    return switch (ending) {
      case "csv" -> Files.readAllBytes(Pottery.folder("sources/firing log.csv"));
      case "json" -> Files.readAllBytes(Pottery.folder("sources/course bookings.json"));
      case "xml" ->
          ("<log>"
                  + "<firing day='2026-03-14'><kiln>Ember</kiln><piece n='4'>bowl</piece><piece>jug"
                      .concat("</piece></firing>")
                      .repeat(20)
                  + "</log>")
              .getBytes(StandardCharsets.UTF_8);
      case "xlsx" -> workbook();
      default -> sheets();
    };
  }

  private static byte[] workbook() throws IOException {
    var out = new ByteArrayOutputStream();
    try (var workbook = new Workbook(out, "Joiner", "1.0")) {
      Worksheet sheet = workbook.newWorksheet("kilns");
      for (int row = 0; row < 30; row++) {
        sheet.value(row, 0, row == 0 ? "Kiln" : "Ember " + row);
        sheet.value(row, 1, row == 0 ? "Litres" : String.valueOf(row * 3));
      }
    }
    return out.toByteArray();
  }

  private static byte[] sheets() throws IOException {
    var out = new ByteArrayOutputStream();
    String row =
        "<t:table-row><t:table-cell><x:p>Ember</x:p></t:table-cell><t:table-cell o:value-type='float'"
            + " o:value='3'/></t:table-row>";
    try (var zip = new ZipOutputStream(out)) {
      zip.setMethod(ZipOutputStream.DEFLATED);
      zip.setLevel(0);
      zip.putNextEntry(new ZipEntry("content.xml"));
      zip.write(
          ("<o:c xmlns:o='o' xmlns:t='t' xmlns:x='x'><t:table t:name='k'>"
                  + row.repeat(20)
                  + "</t:table></o:c>")
              .getBytes(StandardCharsets.UTF_8));
    }
    return out.toByteArray();
  }
}
