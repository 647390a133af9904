package joiner.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.format.UnreadableFileException;
import joiner.rows.EncodedTable;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Every kind of cell a source can hold, read one by one. */
class SourceCellsTest {
  @TempDir private Path folder;

  private Source read(Path file) throws Exception {
    return SourceFile.read(file, ReadingOptions.DETECT);
  }

  private Source text(String name, String content) throws Exception {
    return read(Files.writeString(folder.resolve(name), content));
  }

  private static List<List<String>> rows(Source source, int table) {
    EncodedTable cells = source.tables().get(table).cells();
    return IntStream.range(0, cells.rows()).mapToObj(cells::row).toList();
  }

  private static List<String> headers(Source source, int table) {
    return source.tables().get(table).cells().headers();
  }

  private static List<String> said(Source source) {
    return source.problems().stream().map(SourceProblem::toString).toList();
  }

  private static String row(String... cells) {
    return "<table:table-row>" + String.join("", cells) + "</table:table-row>";
  }

  private static String cell(String text) {
    return "<table:table-cell><text:p>" + text + "</text:p></table:table-cell>";
  }

  private static String typed(String type, String attribute, String value, String shown) {
    return "<table:table-cell office:value-type='"
        + type
        + "' office:"
        + attribute
        + "='"
        + value
        + "'><text:p>"
        + shown
        + "</text:p></table:table-cell>";
  }

  private Source ods(String... rows) throws Exception {
    return read(SheetFiles.ods(folder.resolve("a.ods"), "S", String.join("", rows)));
  }

  /** ISO/IEC 26300, office:value-type: the stored value counts, not what is shown. */
  @Test
  void storedValuesOfOpenDocumentCount() throws Exception {
    Source source =
        ods(
            row(cell("N"), cell("P"), cell("D"), cell("M"), cell("T"), cell("L"), cell("B")),
            row(
                typed("float", "value", "1222.5", "1,222.50"),
                typed("percentage", "value", "0.25", "25%"),
                typed("date", "date-value", "2026-03-14", "14 March"),
                typed("date", "date-value", "2026-03-14T18:05:00", "tea time"),
                typed("time", "time-value", "PT18H05M00S", "6 pm"),
                typed("time", "time-value", "PT30H00M00S", "30 h"),
                typed("boolean", "boolean-value", "true", "yes")));
    assertThat(rows(source, 0))
        .containsExactly(
            List.of(
                "1222.5",
                "0.25",
                "2026-03-14",
                "2026-03-14 18:05:00",
                "18:05",
                "PT30H00M00S",
                "true"));
    assertThat(source.problems()).isEmpty();
    assertThat(source.found()).isEqualTo("one sheet");
  }

  @Test
  void aTimeThatIsNoDurationStaysAsItIs() throws Exception {
    Source source =
        ods(
            row(cell("T"), cell("U")),
            row(
                typed("time", "time-value", "soon", "x"),
                typed("time", "time-value", "-PT1H", "y")),
            row(typed("time", "time-value", "PT23H59M59S", "z"), cell("u")));
    assertThat(rows(source, 0)).containsExactly(List.of("soon", "-PT1H"), List.of("23:59:59", "u"));
  }

  @Test
  void textOfOpenDocumentKeepsBlanksAndBreaksAndLeavesNotesOut() throws Exception {
    Source source =
        ods(
            row(cell("Name"), cell("Note")),
            row(
                cell("a<text:s text:c='3'/>b<text:s/>c"),
                "<table:table-cell><office:annotation><text:p>a note</text:p><text:s"
                    + " text:c='2'/><text:line-break/></office:annotation>"
                    + "<text:p>one<text:line-break/>two</text:p><text:p>three</text:p>"
                    + "</table:table-cell>"));
    assertThat(rows(source, 0)).containsExactly(List.of("a   b c", "one\ntwo\nthree"));
  }

  @Test
  void repeatedAndCoveredCellsStandWhereTheyStand() throws Exception {
    Source source =
        ods(
            row(cell("A"), cell("B"), cell("C"), cell("D")),
            row(
                "<table:table-cell table:number-columns-repeated='2'/>",
                "<table:covered-table-cell><text:p>x</text:p></table:covered-table-cell>",
                cell("y")),
            "<table:table-row table:number-rows-repeated='3'>"
                + "<table:table-cell table:number-columns-repeated='2'><text:p>z</text:p>"
                + "</table:table-cell></table:table-row>",
            "<table:table-row table:number-rows-repeated='1000000'><table:table-cell/>"
                + "</table:table-row>",
            row(
                "<table:table-cell table:number-columns-repeated='many'><text:p>w</text:p></table:table-cell>"));
    assertThat(rows(source, 0))
        .containsExactly(
            List.of("", "", "x", "y"),
            List.of("z", "z", "", ""),
            List.of("z", "z", "", ""),
            List.of("z", "z", "", ""),
            List.of("w", "", "", ""));
  }

  @Test
  void aRowRepeatedBeyondReasonIsReadOnceAndTold() throws Exception {
    String many =
        "<table:table-row table:number-rows-repeated='%d'>" + cell("z") + "</table:table-row>";
    Source source = ods(row(cell("A")), row(cell("a")), many.formatted(20_001), row(cell("b")));
    assertThat(rows(source, 0)).containsExactly(List.of("a"), List.of("z"), List.of("b"));
    assertThat(said(source))
        .singleElement()
        .satisfies(s -> assertThat(s).contains("sheet “S”, row 3", "20001 times"));
    Source just = ods(row(cell("A")), row(cell("a")), many.formatted(20_000));
    assertThat(rows(just, 0)).hasSize(20_001);
    assertThat(just.problems()).isEmpty();
  }

  @Test
  void aFormulaOfOpenDocumentWithoutResultIsToldWithItsRow() throws Exception {
    Source source =
        ods(
            row(cell("A"), cell("B")),
            row(cell("a"), "<table:table-cell table:formula='of:=1+1'/>"),
            row(
                cell("b"),
                "<table:table-cell table:formula='of:=1+1' office:value-type='float'"
                    + " office:value='2'><text:p>2</text:p></table:table-cell>"));
    assertThat(rows(source, 0)).containsExactly(List.of("a", ""), List.of("b", "2"));
    assertThat(said(source))
        .singleElement()
        .satisfies(s -> assertThat(s).contains("sheet “S”, row 2", "no stored result"));
  }

  @Test
  void severalSheetsKeepTheirNamesAndOneTakesTheFiles() throws Exception {
    String kilns = row(cell("Kiln")) + row(cell("Ember"));
    Source two =
        read(SheetFiles.ods(folder.resolve("a.ods"), "Kilns", kilns, "Empty", "", "More", kilns));
    assertThat(two.tables()).extracting(t -> t.cells().name()).containsExactly("Kilns", "More");
    assertThat(two.found()).isEqualTo("2 sheets");
    Source one = read(SheetFiles.ods(folder.resolve("shelf.ods"), "Sheet1", kilns));
    assertThat(one.tables()).extracting(t -> t.cells().name()).containsExactly("shelf");
    assertThatThrownBy(() -> read(SheetFiles.ods(folder.resolve("e.ods"), "A", "")))
        .hasMessageContaining("every sheet of the workbook is empty");
    assertThatThrownBy(() -> read(SheetFiles.zip(folder.resolve("n.ods"), "mimetype", "x")))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("content.xml is missing");
  }

  @Test
  void namesAndColumnsOfASheetAreFoundAlsoAfterManyRows() throws Exception {
    var rows = new ArrayList<String>();
    rows.add(row(cell("A title")));
    rows.add(row(cell("No"), cell("Name")));
    for (int i = 0; i < 250; i++) {
      rows.add(row(cell(String.valueOf(i)), cell("Pot " + i)));
    }
    rows.add(row(cell("250"), cell("last"), cell(""), cell("beyond")));
    Source source = ods(rows.toArray(String[]::new));
    assertThat(headers(source, 0)).containsExactly("No", "Name", "Column 4");
    assertThat(rows(source, 0)).hasSize(251);
    assertThat(rows(source, 0).getLast()).containsExactly("250", "last", "beyond");
    Source elsewhere =
        SourceFile.read(folder.resolve("a.ods"), ReadingOptions.DETECT.withHeaderLine(1));
    assertThat(headers(elsewhere, 0).getFirst()).isEqualTo("A title");
  }

  private Source xlsx(java.util.function.Consumer<Worksheet> fill) throws Exception {
    Path file = folder.resolve("a.xlsx");
    try (OutputStream out = Files.newOutputStream(file);
        var workbook = new Workbook(out, "Joiner", "1.0")) {
      fill.accept(workbook.newWorksheet("S"));
    }
    return read(file);
  }

  /** ECMA-376: dates are numbers with a format; which letters of it mean a day or a clock. */
  @Test
  void numbersWithFormatsOfDatesAreDates() throws Exception {
    Source source =
        xlsx(
            sheet -> {
              String[] formats = {
                "yyyy-mm-dd", "yyyy-mm-dd hh:mm", "hh:mm:ss", "0.00", "\"day\" 0", "[Red]0", "dd/mm"
              };
              for (int i = 0; i < formats.length; i++) {
                sheet.value(0, i, "c" + i);
                sheet.value(1, i, LocalDateTime.of(2026, 3, 14, i == 0 || i == 6 ? 0 : 18, 0));
                sheet.style(1, i).format(formats[i]).set();
              }
              sheet.value(1, 2, 0.75);
              sheet.value(2, 0, LocalDateTime.of(2026, 3, 14, 18, 5));
              sheet.style(2, 0).format("yyyy-mm-dd").set();
              sheet.value(2, 1, LocalDateTime.of(2026, 3, 14, 0, 0));
              sheet.style(2, 1).format("yyyy-mm-dd hh:mm").set();
              sheet.value(2, 2, 46095.75);
              sheet.style(2, 2).format("hh:mm:ss").set();
              sheet.value(2, 3, 0.1 + 0.2);
              sheet.value(2, 4, true);
            });
    assertThat(rows(source, 0).get(0))
        .containsExactly(
            "2026-03-14",
            "2026-03-14 18:00:00",
            "18:00:00",
            "46095.75",
            "46095.75",
            "46095.75",
            "2026-03-14");
    assertThat(rows(source, 0).get(1))
        .containsExactly(
            "2026-03-14 18:05:00",
            "2026-03-14 00:00:00",
            "2026-03-14 18:00:00",
            "0.3",
            "true",
            "",
            "");
  }

  @Test
  void errorsAndFormulasOfWorkbooksAreToldWithTheirCell() throws Exception {
    Source source =
        read(
            SheetFiles.xlsx(
                folder.resolve("b.xlsx"),
                "<row r=\"1\"><c r=\"A1\" t=\"str\"><v>Name</v></c><c r=\"B1\" t=\"str\"><v>N</v></c></row>"
                    + "<row r=\"2\"><c r=\"A2\" t=\"e\"><v>#DIV/0!</v></c><c r=\"B2\"><v>1</v></c></row>"
                    + "<row r=\"3\"><c r=\"A3\"><f>1+1</f></c><c r=\"B3\"><f>1+1</f><v>2</v></c></row>"
                    + "<row r=\"4\"><c r=\"B4\"><v>-0</v></c></row>"));
    assertThat(rows(source, 0))
        .containsExactly(List.of("", "1"), List.of("", "2"), List.of("", "0"));
    assertThat(said(source))
        .hasSize(2)
        .anySatisfy(s -> assertThat(s).contains("sheet “S”, row 2", "A2", "#DIV/0!"))
        .anySatisfy(s -> assertThat(s).contains("sheet “S”, row 3", "no stored result"));
  }

  @Test
  void valuesAndListsOfJsonBecomeColumnsAndTables() throws Exception {
    Source source =
        text(
            "pots.json",
            "[{\"a\":1,\"b\":{\"c\":true,\"d\":null},\"tags\":[\"x\",\"y\"]},{\"a\":\"=1+1\",\"tags\":[[\"z\"]]},7]");
    assertThat(headers(source, 0)).containsExactly("a", "b.c", "b.d", "pot");
    assertThat(rows(source, 0))
        .containsExactly(
            List.of("1", "true", "", ""), List.of("=1+1", "", "", ""), List.of("", "", "", "7"));
    assertThat(source.tables().get(1).cells().name()).isEqualTo("pot tags");
    assertThat(headers(source, 1)).containsExactly("tag");
    assertThat(rows(source, 1).subList(0, 2)).containsExactly(List.of("x"), List.of("y"));
    assertThat(source.tables().get(1).parent().orElseThrow().rowOf(1)).isZero();
    assertThat(source.tables().get(1).parent().orElseThrow().rowOf(2)).isEqualTo(1);
    assertThat(said(source))
        .singleElement()
        .satisfies(s -> assertThat(s).contains("line 1", "formula"));
  }

  @Test
  void oneRecordOfArraysGivesATableForEachAndOthersGiveOneRow() throws Exception {
    Source arrays = text("a.json", "{\"kilns\":[{\"n\":1}],\"pots\":[{\"m\":2},{\"m\":3}]}");
    assertThat(arrays.tables()).extracting(t -> t.cells().name()).containsExactly("kilns", "pots");
    Source mixed = text("b.json", "{\"n\":1,\"pots\":[{\"m\":2}]}");
    assertThat(mixed.tables()).extracting(t -> t.cells().name()).containsExactly("b", "b pots");
    assertThat(text("c.json", "{\"n\":1}").tables()).hasSize(1);
    assertThat(text("d.json", "{}").tables().getFirst().cells().rows()).isEqualTo(1);
    assertThatThrownBy(() -> text("e.json", "")).hasMessageContaining("the file is empty");
    assertThatThrownBy(() -> text("f.json", "nonsense")).hasMessageContaining("this is not JSON");
  }

  @Test
  void ofManyProblemsTheFirstAreToldAndTheRestCounted() throws Exception {
    String usual = "1,2\n".repeat(200);
    String rows = "1,2,3\n".repeat(50);
    assertThat(text("a.csv", "A,B\n" + usual + rows).problems()).hasSize(50);
    Source more = text("a.csv", "A,B\n" + usual + rows + "1\n1\n1\n");
    assertThat(more.problems()).hasSize(51);
    assertThat(more.problems().getLast().message())
        .isEqualTo("and 3 more problems after this one.");
  }

  /** Reading everything and reading it through tell the same of every column. */
  @Test
  void aFileReadThroughHasTheProfileOfOneLoaded() throws Exception {
    String text =
        "No,Name,Day\n"
            + IntStream.range(0, 5000)
                .mapToObj(i -> i + ",Pot " + i % 90 + "," + (i % 3 == 0 ? "" : "2026-03-1" + i % 9))
                .collect(Collectors.joining("\n"));
    Path file = Files.writeString(folder.resolve("long.csv"), text);
    var loaded = ProfiledSource.of(read(file)).profiles().getFirst();
    try (var tables = new ProfiledTables()) {
      SourceFile.scan(file, ReadingOptions.DETECT, tables);
      TableProfile through = tables.profiles().getFirst();
      assertThat(through.rows()).isEqualTo(5000);
      assertThat(through.columns()).hasSameSizeAs(loaded);
      for (int i = 0; i < loaded.size(); i++) {
        assertThat(through.columns().get(i).header()).isEqualTo(loaded.get(i).header());
        assertThat(through.columns().get(i).type()).isEqualTo(loaded.get(i).type());
        assertThat(through.columns().get(i).distinct()).isEqualTo(loaded.get(i).distinct());
      }
    }
  }

  @Test
  void everyKindOfFileCanBeStopped() throws Exception {
    Path ods =
        SheetFiles.ods(folder.resolve("s.ods"), "S", (row(cell("A")) + row(cell("b"))).repeat(9));
    Path json = Files.writeString(folder.resolve("s.json"), "[{\"a\":1},{\"a\":2}]");
    Path xml = Files.writeString(folder.resolve("s.xml"), "<r><a x='1'/><a x='2'/></r>");
    Path xlsx =
        SheetFiles.xlsx(folder.resolve("s.xlsx"), "<row r=\"1\"><c r=\"A1\"><v>1</v></c></row>");
    for (Path file : List.of(ods, json, xml, xlsx)) {
      assertThatThrownBy(() -> SourceFile.read(file, ReadingOptions.DETECT.stoppedBy(() -> true)))
          .as(file.toString())
          .isInstanceOf(CancellationException.class);
    }
  }
}
