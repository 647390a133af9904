package joiner.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import joiner.Pottery;
import joiner.Tries;
import joiner.format.UnreadableFileException;
import joiner.rows.EncodedTable;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SourceFileTest {
  @TempDir private Path folder;

  private Path file(String name, String text) throws IOException {
    return Files.writeString(folder.resolve(name), text);
  }

  private static Source read(Path file) throws IOException, UnreadableFileException {
    return SourceFile.read(file, ReadingOptions.DETECT);
  }

  private EncodedTable csv(String text) throws IOException, UnreadableFileException {
    return read(file("log.csv", text)).tables().getFirst().cells();
  }

  private static List<List<String>> rows(EncodedTable table) {
    return java.util.stream.IntStream.range(0, table.rows()).mapToObj(table::row).toList();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "Kiln,Cone\nEmber,06\n",
        "Kiln;Peak\nEmber;1063,5\nBig Tom;1222,0\nAsh;9,5\n",
        "Kiln\tNote\nEmber\ta, b, c\nAsh\td, e, f\n",
        "'Kiln'|'Cone'\n'Big|Tom'|'06'\n'Ash'|'4'\n"
      })
  void theSeparatorIsFoundEvenBesideDecimalCommas(String text) throws Exception {
    assertThat(csv(text).columns()).hasSize(2);
  }

  @ParameterizedTest
  @ValueSource(strings = {"UTF-8", "windows-1252", "UTF-16LE", "UTF-16BE"})
  void theEncodingIsFound(String encoding) throws Exception {
    Path file = folder.resolve("glazes.csv");
    Files.write(file, "Glaze,°C\nRosé,1222\nGrün,1063\n".getBytes(Charset.forName(encoding)));
    EncodedTable table = read(file).tables().getFirst().cells();
    assertThat(table.headers()).containsExactly("Glaze", "°C");
    assertThat(table.text(1, 0)).isEqualTo("Grün");
  }

  /** A file in UTF-8 is read the quick way as far as nothing in it is doubtful, a block never. */
  @Test
  void theQuickWayReadsWhatTheTolerantOneReads() throws Exception {
    for (long seed : Tries.of(400).toArray()) {
      var random = new Random(seed);
      String text = RandomText.of(random);
      String breaks = List.of("\n", "\r\n", "\r").get(random.nextInt(3));
      text = text.replace("\n", breaks);
      Source quick = read(file("log.csv", text));
      Source tolerant = SourceFile.pasted("log.csv", text, ReadingOptions.DETECT);
      EncodedTable table = quick.tables().getFirst().cells();
      EncodedTable other = tolerant.tables().getFirst().cells();
      assertThat(table.headers()).as("seed %d", seed).isEqualTo(other.headers());
      assertThat(rows(table)).as("seed %d", seed).isEqualTo(rows(other));
      assertThat(messages(quick)).as("seed %d", seed).isEqualTo(messages(tolerant));
    }
  }

  private static List<String> messages(Source source) {
    return source.problems().stream()
        .map(p -> p.place().replaceFirst(".*log.csv", "") + p.message())
        .toList();
  }

  @Test
  void aByteOrderMarkIsNoPartOfTheFirstHeader() throws Exception {
    Path file = folder.resolve("a.csv");
    try (OutputStream out = Files.newOutputStream(file)) {
      out.write(new byte[] {(byte) 0xEF, (byte) 0xBB, (byte) 0xBF});
      out.write("Kiln,Cone\nEmber,6\n".getBytes(StandardCharsets.UTF_8));
    }
    assertThat(read(file).tables().getFirst().cells().headers()).containsExactly("Kiln", "Cone");
  }

  @Test
  void anEncodingThatBreaksLateIsReadAgainInAnother() throws Exception {
    var text = new StringBuilder("Glaze,Batch\n");
    for (int i = 0; i < 60_000; i++) {
      text.append("Celadon,").append(i).append('\n');
    }
    Path file = folder.resolve("late.csv");
    Files.write(file, (text + "Rosé,7\n").getBytes(Charset.forName("windows-1252")));
    Source source = read(file);
    EncodedTable table = source.tables().getFirst().cells();
    assertThat(source.tables()).hasSize(1);
    assertThat(table.rows()).isEqualTo(60_001);
    assertThat(table.text(60_000, 0)).isEqualTo("Rosé");
  }

  @Test
  void linesBeforeTheColumnNamesAreLeftOutAndTold() throws Exception {
    Source source =
        read(
            file(
                "log.csv",
                "Firing log of the studio,,\n,,\nDay,Kiln,Cone\n2026-03-14,Ember,06\n2026-03-15,Big"
                    + " Tom,6\n"));
    assertThat(source.headerLine()).hasValue(3);
    assertThat(source.found()).contains("line 3");
    assertThat(rows(source.tables().getFirst().cells()))
        .containsExactly(
            List.of("2026-03-14", "Ember", "06"), List.of("2026-03-15", "Big Tom", "6"));
  }

  @Test
  void theColumnNamesCanBePutElsewhere() throws Exception {
    Path file = file("log.csv", "Kiln,Cone\nEmber,06\n");
    EncodedTable none =
        SourceFile.read(file, ReadingOptions.DETECT.withHeaderLine(0)).tables().getFirst().cells();
    assertThat(none.headers()).containsExactly("Column 1", "Column 2");
    assertThat(none.rows()).isEqualTo(2);
    EncodedTable later =
        SourceFile.read(file, ReadingOptions.DETECT.withHeaderLine(2)).tables().getFirst().cells();
    assertThat(later.headers()).containsExactly("Ember", "06");
  }

  @Test
  void aFileWithoutColumnNamesIsSeen() throws Exception {
    EncodedTable table = csv("2026-03-14,1222\n2026-03-15,1063\n2026-03-16,1285\n");
    assertThat(table.rows()).isEqualTo(3);
    assertThat(table.headers()).containsExactly("Column 1", "Column 2");
  }

  @Test
  void raggedRowsLoseNothingAndAreToldWithTheirLine() throws Exception {
    Source source = read(file("log.csv", "Kiln,Cone\nEmber\nBig Tom,6,spare,x\nAsh,4\n"));
    EncodedTable table = source.tables().getFirst().cells();
    assertThat(rows(table))
        .containsExactly(
            List.of("Ember", "", "", ""),
            List.of("Big Tom", "6", "spare", "x"),
            List.of("Ash", "4", "", ""));
    assertThat(source.problems()).hasSize(2);
    assertThat(source.problems().get(0).place()).endsWith("line 2");
    assertThat(source.problems().get(1).place()).endsWith("line 3");
    assertThat(source.problems()).allSatisfy(p -> assertThat(p.message()).endsWith("."));
  }

  @Test
  void aQuotationMarkThatIsNeverClosedCostsNoLine() throws Exception {
    Source source = read(file("log.csv", "Kiln,Cone\nEmber,6\n\"Big Tom,10\nAsh,4\nLise,6\n"));
    EncodedTable table = source.tables().getFirst().cells();
    assertThat(rows(table))
        .contains(List.of("Ember", "6"), List.of("Ash", "4"), List.of("Lise", "6"))
        .hasSize(4);
    assertThat(source.problems().toString()).contains("line 3", "never closed");
  }

  @Test
  void quotedBreaksSeparatorsAndDoubledQuotesStayInTheirCell() throws Exception {
    EncodedTable table = csv("Note,Cone\n\"crack,\nlid \"\"B\"\"\",6\n\"\",4\n");
    assertThat(rows(table)).containsExactly(List.of("crack,\nlid \"B\"", "6"), List.of("", "4"));
  }

  @Test
  void anEmptyFileSaysWhatItNeeds() throws Exception {
    Path file = file("none.csv", "");
    assertThatThrownBy(() -> read(file))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("none.csv")
        .hasMessageContaining("column names");
    assertThat(csv("Kiln,Cone\n").rows()).isZero();
  }

  @Test
  void aFormulaStaysTextAndIsTold() throws Exception {
    Source source = read(file("log.csv", "Kiln,Sum\nEmber,=SUM(A1:A9)\n"));
    assertThat(source.tables().getFirst().cells().text(0, 1)).isEqualTo("=SUM(A1:A9)");
    assertThat(source.problems().toString()).contains("line 2", "not computed");
  }

  @Test
  void tenThousandColumnsAreReadAndTold() throws Exception {
    String names =
        java.util.stream.IntStream.range(0, 10_000)
            .mapToObj(i -> "c" + i)
            .collect(java.util.stream.Collectors.joining(","));
    Source source = read(file("wide.csv", names + "\n" + names.replace('c', 'v') + "\n"));
    assertThat(source.tables().getFirst().cells().columns()).hasSize(10_000);
    assertThat(source.problems().toString()).contains("10000 columns");
  }

  @Test
  void readingCanBeStopped() throws Exception {
    var text = new StringBuilder("Kiln,Cone\n");
    for (int i = 0; i < 20_000; i++) {
      text.append("Ember,").append(i).append('\n');
    }
    Path file = file("long.csv", text.toString());
    var asked = new AtomicInteger();
    ReadingOptions options = ReadingOptions.DETECT.stoppedBy(() -> asked.incrementAndGet() > 3);
    assertThatThrownBy(() -> SourceFile.read(file, options))
        .isInstanceOf(CancellationException.class);
  }

  @Test
  void aPastedBlockIsCutAtTabs() throws Exception {
    Source source =
        SourceFile.pasted("block", "Kiln\tCone\r\nEmber\t06\r\n", ReadingOptions.DETECT);
    assertThat(rows(source.tables().getFirst().cells())).containsExactly(List.of("Ember", "06"));
    Source open =
        SourceFile.pasted(
            "block", "Kiln\tCone\nEmber\t06\n\"Big Tom\t6\nAsh\t4\n", ReadingOptions.DETECT);
    assertThat(open.tables().getFirst().cells().rows()).as("no line is lost").isEqualTo(3);
    assertThat(open.problems()).hasSize(1);
  }

  @Test
  void workbooksKeepTheirSheetsDatesAndNumbers() throws Exception {
    Path file = folder.resolve("studio.xlsx");
    try (OutputStream out = Files.newOutputStream(file);
        var workbook = new Workbook(out, "Joiner", "1.0")) {
      Worksheet kilns = workbook.newWorksheet("kilns");
      kilns.value(0, 0, "Kilns of the studio");
      kilns.value(1, 0, "Kiln");
      kilns.value(1, 1, "Bought");
      kilns.value(1, 2, "Litres");
      kilns.value(1, 3, "Electric");
      kilns.value(2, 0, "Ember");
      kilns.value(2, 1, LocalDate.of(2019, 4, 2));
      kilns.style(2, 1).format("dd.mm.yyyy").set();
      kilns.value(2, 2, 120.5);
      kilns.value(2, 3, true);
      kilns.value(4, 0, "Big Tom");
      kilns.value(4, 2, 300);
      Worksheet cones = workbook.newWorksheet("cones");
      cones.value(0, 0, "Cone");
      cones.value(1, 0, "04");
      workbook.newWorksheet("empty");
    }
    Source source = read(file);
    assertThat(source.found()).isEqualTo("2 sheets");
    assertThat(source.tables()).extracting(SourceTable::name).containsExactly("kilns", "cones");
    EncodedTable kilns = source.tables().getFirst().cells();
    assertThat(kilns.headers()).containsExactly("Kiln", "Bought", "Litres", "Electric");
    assertThat(rows(kilns))
        .containsExactly(
            List.of("Ember", "2019-04-02", "120.5", "true"), List.of("Big Tom", "", "300", ""));
    assertThat(source.tables().get(1).cells().text(0, 0)).isEqualTo("04");
  }

  @Test
  void aFormulaInAWorkbookWithoutAResultIsTold() throws Exception {
    Path file = folder.resolve("sum.xlsx");
    try (OutputStream out = Files.newOutputStream(file);
        var workbook = new Workbook(out, "Joiner", "1.0")) {
      Worksheet sheet = workbook.newWorksheet("sums");
      sheet.value(0, 0, "Kiln");
      sheet.value(0, 1, "Litres");
      sheet.value(1, 0, "Ember");
      sheet.formula(1, 1, "SUM(A1:A9)");
    }
    Source source = read(file);
    assertThat(source.problems().toString()).contains("sums", "row 2", "calculate");
    assertThat(source.tables().getFirst().cells().text(0, 0)).isEqualTo("Ember");
  }

  private Path zip(String name, String entry, String content) throws IOException {
    Path file = folder.resolve(name);
    try (var zip = new ZipOutputStream(Files.newOutputStream(file))) {
      zip.putNextEntry(new ZipEntry(entry));
      zip.write(content.getBytes(StandardCharsets.UTF_8));
    }
    return file;
  }

  private static final String ODS =
      """
      <office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x"><office:body>
      <office:spreadsheet><table:table table:name="kilns">
      <table:table-row><table:table-cell office:value-type="string"><text:p>Kiln</text:p></table:table-cell>
      <table:table-cell office:value-type="string"><text:p>Bought</text:p></table:table-cell>
      <table:table-cell><text:p>Litres</text:p></table:table-cell></table:table-row>
      <table:table-row><table:table-cell office:value-type="string"><office:annotation><text:p>old</text:p></office:annotation><text:p>Big<text:s/>Tom</text:p></table:table-cell>
      <table:table-cell office:value-type="date" office:date-value="2019-04-02"><text:p>02.04.19</text:p></table:table-cell>
      <table:table-cell office:value-type="float" office:value="300"><text:p>300,0</text:p></table:table-cell></table:table-row>
      <table:table-row table:number-rows-repeated="2"><table:table-cell table:number-columns-repeated="2" office:value-type="string"><text:p>x</text:p></table:table-cell></table:table-row>
      <table:table-row table:number-rows-repeated="1048000"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>
      </table:table></office:spreadsheet></office:body></office:document-content>
      """;

  @Test
  void openDocumentSheetsAreReadWithTheirValues() throws Exception {
    Source source = read(zip("kilns.ods", "content.xml", ODS));
    assertThat(rows(source.tables().getFirst().cells()))
        .containsExactly(
            List.of("Big Tom", "2019-04-02", "300"), List.of("x", "x", ""), List.of("x", "x", ""));
  }

  @Test
  void anArchiveThatUnpacksToFarMoreThanItIsIsRefused() throws Exception {
    Path file = folder.resolve("bomb.ods");
    try (var zip = new ZipOutputStream(Files.newOutputStream(file))) {
      zip.putNextEntry(new ZipEntry("content.xml"));
      byte[] blanks = new byte[1 << 20];
      for (int i = 0; i < 80; i++) {
        zip.write(blanks);
      }
    }
    assertThatThrownBy(() -> read(file))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("unpacks to more than");
  }

  @Test
  void aRepeatedRowIsNoBomb() throws Exception {
    String many = ODS.replace("number-rows-repeated=\"2\"", "number-rows-repeated=\"2000000000\"");
    Source source = read(zip("many.ods", "content.xml", many));
    assertThat(source.tables().getFirst().cells().rows()).isEqualTo(2);
    assertThat(source.problems().toString()).contains("repeated 2000000000 times");
  }

  @Test
  void nestedBookingsBecomeLinkedTables() throws Exception {
    Source source = read(Pottery.folder("sources/course bookings.json"));
    assertThat(source.tables())
        .extracting(SourceTable::name)
        .containsExactly(
            "course bookings",
            "course booking sessions",
            "session materials",
            "course booking bookings");
    assertThat(source.tables().getFirst().cells().headers())
        .containsExactly("run", "course.code", "course.title", "course.fee", "starts");
    SourceTable bookings = source.tables().get(3);
    assertThat(bookings.parent()).hasValueSatisfying(p -> assertThat(p.table()).isZero());
    SourceTable materials = source.tables().get(2);
    assertThat(materials.parent()).hasValueSatisfying(p -> assertThat(p.table()).isEqualTo(1));
    assertThat(bookings.parent().orElseThrow().rowOf(bookings.cells().rows() - 1))
        .as("the last booking belongs to the last run")
        .isEqualTo(source.tables().getFirst().cells().rows() - 1);
  }

  @Test
  void aDocumentOfArraysOnlyGivesATableForEach() throws Exception {
    Source source =
        read(file("studio.json", "{\"kilns\":[{\"name\":\"Ember\"}],\"cones\":[\"04\",null]}"));
    assertThat(source.tables()).extracting(SourceTable::name).containsExactly("kilns", "cones");
    assertThat(source.tables()).allMatch(table -> table.parent().isEmpty());
    assertThat(rows(source.tables().get(1).cells())).containsExactly(List.of("04"), List.of(""));
  }

  @Test
  void linesOfJsonAreRowsAndABreakKeepsWhatStandsBefore() throws Exception {
    Source source = read(file("log.jsonl", "{\"kiln\":\"Ember\"}\n{\"kiln\":1.50}\n{\"kiln\":"));
    assertThat(rows(source.tables().getFirst().cells()))
        .startsWith(List.of("Ember"), List.of("1.50"));
    assertThat(source.problems().toString()).contains("line 3", "breaks off");
  }

  @Test
  void aFieldNamedTwiceInOneRecordIsTold() throws Exception {
    Path file = file("twice.json", "[{\"a\":1,\"a\":2}]");
    assertThatThrownBy(() -> read(file)).hasMessageContaining("line 1");
  }

  @Test
  void repeatingElementsBecomeLinkedTables() throws Exception {
    Source source =
        read(
            file(
                "log.xml",
                """
                <log><firing day="2026-03-14"><kiln>Ember</kiln><pieces><piece n="4">bowl</piece>\
                <piece n="1">jug</piece></pieces></firing>
                <firing day="2026-03-15"><kiln><name>Big Tom</name></kiln></firing></log>
                """));
    assertThat(source.tables()).hasSize(2);
    assertThat(source.tables().getFirst().cells().headers())
        .containsExactlyInAnyOrder("day", "kiln.value", "kiln.name");
    EncodedTable pieces = source.tables().get(1).cells();
    assertThat(rows(pieces)).containsExactly(List.of("4", "bowl"), List.of("1", "jug"));
  }

  @Test
  void externalEntitiesAreNeverFollowed() throws Exception {
    Path secret = file("secret.txt", "the glaze recipe");
    Path file =
        file(
            "x.xml",
            "<!DOCTYPE a [<!ENTITY s SYSTEM \""
                + secret.toUri()
                + "\">]><a><b>&s;</b><b>2</b></a>");
    try {
      Source source = read(file);
      assertThat(source.tables().toString() + rows(source.tables().getFirst().cells()))
          .doesNotContain("glaze recipe");
    } catch (UnreadableFileException e) {
      assertThat(e).hasMessageContaining("x.xml");
    }
  }

  @Test
  void aDataPackageIsASource() throws Exception {
    Source source = read(Pottery.folder("saltmarsh-pottery"));
    assertThat(source.tables()).hasSize(16);
    assertThat(source.found()).isEqualTo("Data Package");
  }

  @Test
  void whatIsNoWorkbookSaysSo() throws Exception {
    for (String name : List.of("a.xlsx", "a.ods")) {
      assertThatThrownBy(() -> read(file(name, "Kiln,Cone\n")))
          .hasMessageContaining("no workbook")
          .hasMessageContaining(name);
    }
  }
}
