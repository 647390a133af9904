package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import java.io.ByteArrayInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import joiner.Tries;
import org.junit.jupiter.api.Test;

/** Delimited text read as a well-known library reads it (FastCSV, from Maven Central). */
class CsvScanTest {
  private static final List<String> PIECES =
      List.of(
          "a",
          "é",
          "😀",
          ",",
          ";",
          "\"",
          "\"\"",
          "\n",
          "\r",
          "\r\n",
          " ",
          "kiln",
          ",,",
          "\t",
          "\uFEFF",
          "x\"y",
          "\"a,b\"",
          "\"a\nb\"",
          "\"\"\"\"",
          "0");

  /** A record with the line it began in. */
  private record Found(long line, List<String> cells) {}

  private static final class Collected implements CsvScan.Cells {
    private final List<Found> records = new ArrayList<>();
    private List<String> cells = new ArrayList<>();

    @Override
    public void cell(char[] chars, int offset, int length) {
      cells.add(new String(chars, offset, length));
    }

    @Override
    public void endRecord(long line, boolean empty) {
      if (!empty) {
        records.add(new Found(line, cells));
      }
      cells = new ArrayList<>();
    }
  }

  private static final Found UNCLOSED = new Found(0, List.of());

  /** What was read before the text turned out to be none is read by nobody. */
  private static Optional<List<Found>> scanned(InputStream in, char separator) throws IOException {
    var collected = new Collected();
    try {
      new CsvScan(in, separator, '"', collected).run();
      return Optional.of(collected.records);
    } catch (CsvScan.MalformedException e) {
      return e.getMessage().contains("never closed")
          ? Optional.of(List.of(UNCLOSED))
          : Optional.empty();
    }
  }

  private static Optional<List<Found>> byLibrary(String text, char separator) throws IOException {
    String bare = text.startsWith("\uFEFF") ? text.substring(1) : text;
    var records = new ArrayList<Found>();
    try (var csv =
        CsvReader.builder()
            .fieldSeparator(separator)
            .skipEmptyLines(true)
            .allowMissingFields(true)
            .allowExtraFields(true)
            .ofCsvRecord(bare)) {
      csv.forEach(r -> records.add(new Found(r.getStartingLineNumber(), r.getFields())));
      return Optional.of(records);
    } catch (CsvParseException e) {
      return Optional.empty();
    }
  }

  private static InputStream bytes(String text) {
    return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
  }

  /** One byte at a time, so that every border lies within a cell, a pair or a line's end. */
  private static InputStream slowly(String text) {
    return new FilterInputStream(bytes(text)) {
      @Override
      public int read(byte[] to, int offset, int length) throws IOException {
        return super.read(to, offset, Math.min(length, 1));
      }
    };
  }

  @Test
  void everyTextIsReadAsTheLibraryReadsIt() throws IOException {
    int unclosed = 0;
    for (long seed : Tries.of(6_000).toArray()) {
      var random = new Random(seed);
      var text = new StringBuilder();
      for (int i = random.nextInt(24); i > 0; i--) {
        text.append(PIECES.get(random.nextInt(PIECES.size())));
      }
      char separator = random.nextInt(4) == 0 ? ';' : ',';
      Optional<List<Found>> expected = byLibrary(text.toString(), separator);
      Optional<List<Found>> found = scanned(bytes(text.toString()), separator);
      assertThat(scanned(slowly(text.toString()), separator)).as("%s", text).isEqualTo(found);
      if (found.equals(Optional.of(List.of(UNCLOSED)))) {
        unclosed++; // The library takes what follows for the cell; here that is refused.
      } else {
        assertThat(found).as("%s", text).isEqualTo(expected);
      }
    }
    assertThat(unclosed).isPositive();
  }

  @Test
  void aQuoteThatIsNeverClosedIsToldWhereItOpens() {
    assertThatThrownBy(() -> new CsvScan(bytes("a\nb,\"c\nd"), ',', '"', new Collected()).run())
        .hasMessage("a quote is never closed that opens in line 2");
    assertThatThrownBy(() -> new CsvScan(bytes("a\n\"b\"c\n"), ',', '"', new Collected()).run())
        .hasMessage("something stands behind a closing quote in line 2");
  }

  @Test
  void cellsLongerThanABlockAreWhole() throws IOException {
    String plain = "x".repeat(300_000);
    String quoted = "y\n\"".repeat(100_000);
    String text = "a," + plain + "\r\n\"" + quoted.replace("\"", "\"\"") + "\",b\r\n";
    List<Found> found = scanned(bytes(text), ',').orElseThrow();
    assertThat(found.get(0)).isEqualTo(new Found(1, List.of("a", plain)));
    assertThat(found.get(1)).isEqualTo(new Found(2, List.of(quoted, "b")));
  }

  @Test
  void bytesThatAreNoTextEndTheReading() {
    var in = new ByteArrayInputStream(new byte[] {'a', ',', (byte) 0xE9, '\n'});
    assertThatThrownBy(() -> scanned(in, ',')).isInstanceOf(CharacterCodingException.class);
    var broken = new ByteArrayInputStream(new byte[] {'a', (byte) 0xC3});
    assertThatThrownBy(() -> scanned(broken, ',')).isInstanceOf(CharacterCodingException.class);
  }
}
