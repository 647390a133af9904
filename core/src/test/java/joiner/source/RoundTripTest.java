package joiner.source;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.QuoteStrategies;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import java.util.stream.IntStream;
import joiner.discovery.ColumnProfile;
import joiner.rows.EncodedTable;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** What general libraries write, Joiner reads back cell by cell. */
class RoundTripTest {
  private static final String[] PIECES = {
    "bowl", "04", ",", ";", "\"", "'", "\n", "\r\n", "|", "\t", " ", "=", "1.5", "é", "🜂", "a b"
  };

  private static RandomGenerator random(long seed) {
    return RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
  }

  private static String cell(RandomGenerator random) {
    var text = new StringBuilder();
    for (int i = random.nextInt(4); i > 0; i--) {
      text.append(PIECES[random.nextInt(PIECES.length)]);
    }
    return text.toString();
  }

  private static List<List<String>> table(RandomGenerator random, int columns, int rows) {
    var table = new ArrayList<List<String>>();
    table.add(IntStream.range(0, columns).mapToObj(i -> "Column " + (char) ('A' + i)).toList());
    for (int row = 0; row < rows; row++) {
      table.add(IntStream.range(0, columns).mapToObj(i -> cell(random)).toList());
    }
    return table;
  }

  private static List<List<String>> read(Path file, ReadingOptions options) throws Exception {
    EncodedTable cells = SourceFile.read(file, options).tables().getFirst().cells();
    var rows = new ArrayList<List<String>>();
    rows.add(cells.headers());
    IntStream.range(0, cells.rows()).mapToObj(cells::row).forEach(rows::add);
    return rows;
  }

  @Property(tries = 1000)
  void delimitedTextComesBackAsItWasWritten(
      @ForAll long seed,
      @ForAll @IntRange(min = 2, max = 5) int columns,
      @ForAll @IntRange(max = 8) int rows)
      throws Exception {
    RandomGenerator random = random(seed);
    char separator = ",;\t|".charAt(random.nextInt(4));
    Charset charset =
        Charset.forName(List.of("UTF-8", "UTF-16LE", "UTF-16BE").get(random.nextInt(3)));
    List<List<String>> table = table(random, columns, rows);
    Path file = Files.createTempFile("joiner", ".csv");
    try {
      try (CsvWriter csv =
          CsvWriter.builder()
              .fieldSeparator(separator)
              .quoteStrategy(random.nextBoolean() ? QuoteStrategies.ALWAYS : QuoteStrategies.EMPTY)
              .build(file, charset)) {
        table.forEach(csv::writeRecord);
      }
      ReadingOptions told =
          ReadingOptions.DETECT.withSeparator(separator).withCharset(charset).withHeaderLine(1);
      assertThat(read(file, told)).isEqualTo(table);
    } finally {
      Files.delete(file);
    }
  }

  @Property(tries = 150)
  void workbooksComeBackAsTheyWereWritten(
      @ForAll long seed, @ForAll @IntRange(min = 1, max = 8) int rows) throws Exception {
    RandomGenerator random = random(seed);
    List<List<String>> table = new ArrayList<>(table(random, 3, rows));
    table.replaceAll(row -> row.stream().map(c -> c.replace("\r", "")).toList());
    table.removeIf(row -> row.stream().allMatch(String::isBlank));
    Path file = Files.createTempFile("joiner", ".xlsx");
    try {
      try (OutputStream out = Files.newOutputStream(file);
          var workbook = new Workbook(out, "Joiner", "1.0")) {
        Worksheet sheet = workbook.newWorksheet("kilns");
        for (int row = 0; row < table.size(); row++) {
          for (int column = 0; column < 3; column++) {
            sheet.value(row, column, table.get(row).get(column));
          }
        }
      }
      assertThat(read(file, ReadingOptions.DETECT.withHeaderLine(1))).isEqualTo(table);
    } finally {
      Files.delete(file);
    }
  }

  /** Records with lists in lists: every record is a row, and every row knows its parent. */
  @Property(tries = 300)
  void everyNestedRecordBecomesARowOfItsParent(@ForAll long seed) throws Exception {
    RandomGenerator random = random(seed);
    var parents = new ArrayList<String>();
    var children = new ArrayList<String>();
    Path file = Files.createTempFile("joiner", ".json");
    try {
      try (JsonGenerator json =
          new JsonFactory()
              .createGenerator(file.toFile(), com.fasterxml.jackson.core.JsonEncoding.UTF8)) {
        json.writeStartArray();
        for (int firing = random.nextInt(1, 5); firing > 0; firing--) {
          String name = "f" + parents.size();
          parents.add(name);
          json.writeStartObject();
          json.writeStringField("name", name);
          json.writeArrayFieldStart("pieces");
          for (int piece = random.nextInt(4); piece > 0; piece--) {
            children.add(name);
            json.writeStartObject();
            json.writeStringField("of", name);
            json.writeEndObject();
          }
          json.writeEndArray();
          json.writeEndObject();
        }
        json.writeEndArray();
      }
      Source source = SourceFile.read(file, ReadingOptions.DETECT);
      assertThat(source.tables().getFirst().cells().rows()).isEqualTo(parents.size());
      if (!children.isEmpty()) {
        SourceTable pieces = source.tables().get(1);
        for (int row = 0; row < children.size(); row++) {
          int parent = pieces.parent().orElseThrow().rowOf(row);
          assertThat(pieces.cells().text(row, 0)).isEqualTo(parents.get(parent));
        }
        assertThat(pieces.cells().rows()).isEqualTo(children.size());
      }
    } finally {
      Files.delete(file);
    }
  }

  /** The profile taken in passing is the one of the column in memory. */
  @Property(tries = 100)
  void profilingInPassingGivesTheSame(@ForAll long seed, @ForAll @IntRange(max = 5_000) int rows)
      throws IOException {
    RandomGenerator random = random(seed);
    Path file = Files.createTempFile("joiner", ".csv");
    try {
      try (CsvWriter csv = CsvWriter.builder().build(file)) {
        csv.writeRecord("number", "day", "word", "half empty");
        for (int row = 0; row < rows; row++) {
          csv.writeRecord(
              String.valueOf(random.nextInt(100_000)),
              "2026-0" + random.nextInt(1, 10) + "-1" + random.nextInt(10),
              random.nextInt(50) == 0 ? "x" : String.valueOf(random.nextInt(9)),
              random.nextBoolean() ? "" : "v" + random.nextInt(400));
        }
      }
      TableProfile passing = TableProfile.scan(file, ReadingOptions.DETECT).tables().getFirst();
      EncodedTable loaded =
          SourceFile.read(file, ReadingOptions.DETECT).tables().getFirst().cells();
      assertThat(passing.rows()).isEqualTo(rows);
      assertThat(passing.columns())
          .isEqualTo(loaded.columns().stream().map(ColumnProfile::of).toList());
    } catch (joiner.format.UnreadableFileException e) {
      throw new AssertionError(e);
    } finally {
      Files.delete(file);
    }
  }
}
