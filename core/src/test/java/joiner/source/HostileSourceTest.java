package joiner.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.Tries;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Small files that mean to cost much, and files that are broken so that much of them seems gone.
 */
class HostileSourceTest {
  @TempDir private Path folder;

  private Source read(String name, String content) throws Exception {
    Path file = folder.resolve(name);
    Files.writeString(file, content);
    return read(file);
  }

  private static Source read(Path file) throws Exception {
    return assertTimeoutPreemptively(
        Duration.ofSeconds(20), () -> SourceFile.read(file, ReadingOptions.DETECT));
  }

  private static List<String> said(Source source) {
    return source.problems().stream().map(SourceProblem::message).toList();
  }

  private Path zip(String name, String... entries) throws IOException {
    return SheetFiles.zip(folder.resolve(name), entries);
  }

  private Path ods(String rows) throws IOException {
    return SheetFiles.ods(folder.resolve("a.ods"), "S", rows);
  }

  private static String cell(String text) {
    return "<table:table-cell><text:p>" + text + "</text:p></table:table-cell>";
  }

  private Path xlsx(String rows) throws IOException {
    return SheetFiles.xlsx(folder.resolve("a.xlsx"), rows);
  }

  private static String row(int number, String cells) {
    return "<row r=\"" + number + "\">" + cells + "</row>";
  }

  private static String number(String address, int value) {
    return "<c r=\"" + address + "\"><v>" + value + "</v></c>";
  }

  @Tag("long")
  @Test
  void blanksByTheBillionAreNotMade() throws Exception {
    Source source =
        read(
            ods(
                "<table:table-row>"
                    + cell("Name")
                    + "</table:table-row><table:table-row>"
                    + cell("a<text:s text:c='2000000000'/>b")
                    + "</table:table-row>"));
    assertThat(source.tables().getFirst().cells().text(0, 0))
        .startsWith("a ")
        .hasSizeLessThan(2000);
  }

  @Tag("long")
  @Test
  void repeatedCellsAreReadUpToTheBudget() throws Exception {
    Source source =
        read(
            ods(
                "<table:table-row table:number-rows-repeated='9000'>"
                    + "<table:table-cell table:number-columns-repeated='19000'><text:p>x</text:p>"
                    + "</table:table-cell></table:table-row>"));
    assertThat(said(source))
        .anyMatch(s -> s.contains("16384 columns"))
        .anyMatch(s -> s.contains("cells"));
    assertThat(source.tables().getFirst().cells().rows()).isPositive();
  }

  @Test
  void aCellBeyondTheLastColumnIsRefusedInWords() throws Exception {
    Path file = xlsx(row(1, number("A1", 1)) + row(99, number("ZZZZZZ99", 7)));
    assertThatThrownBy(() -> read(file))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("beyond the last one of a sheet, XFD");
    Source source =
        read(xlsx(row(1, number("A1", 1) + number("XFD1", 2)) + row(2, number("A2", 3))));
    assertThat(source.tables().getFirst().cells().columns()).hasSize(2);
  }

  @Tag("long")
  @Test
  void rowsWithOnlyTheLastColumnAreCheap() throws Exception {
    String rows =
        IntStream.rangeClosed(1, 3000)
            .mapToObj(i -> row(i, number("XFD" + i, i)))
            .collect(Collectors.joining());
    Source source = read(xlsx(rows));
    assertThat(source.tables().getFirst().cells().columns()).hasSize(1);
    assertThat(source.tables().getFirst().cells().rows()).isBetween(2999, 3000);
  }

  @Tag("long")
  @Test
  void aHundredThousandKeysKeepTheFirstColumns() throws Exception {
    String keys =
        IntStream.range(0, 100_000)
            .mapToObj(i -> "\"k" + i + "\":1")
            .collect(Collectors.joining(","));
    Source source = read("a.json", "[{" + keys + "},{\"k0\":2}]");
    assertThat(source.tables().getFirst().cells().columns()).hasSize(BudgetedSinks.MOST_COLUMNS);
    assertThat(source.tables().getFirst().cells().rows()).isEqualTo(2);
    assertThat(said(source)).anyMatch(s -> s.contains("more than 16384 columns"));
  }

  @Tag("long")
  @Test
  void aMillionColumnsKeepTheFirst() throws Exception {
    String header =
        IntStream.range(0, 1_000_000).mapToObj(i -> "c" + i).collect(Collectors.joining(","));
    Source source = read("a.csv", header + "\n1,2,3\n" + "4,5,6\n");
    assertThat(source.tables().getFirst().cells().columns()).hasSize(BudgetedSinks.MOST_COLUMNS);
    assertThat(source.tables().getFirst().cells().row(1).subList(0, 3))
        .containsExactly("4", "5", "6");
    assertThat(said(source)).anyMatch(s -> s.contains("more than 16384 columns"));
  }

  @Test
  void aNameOfAMegabyteIsCutAndTold() throws Exception {
    Source source = read("a.csv", "x".repeat(1_000_000) + ",b\n1,2\n");
    assertThat(source.tables().getFirst().cells().headers().getFirst()).hasSize(1001);
    assertThat(said(source)).anyMatch(s -> s.contains("1000000 characters"));
  }

  @Test
  void jsonThatBreaksOffWithinAListKeepsWhatStandsBefore() throws Exception {
    Source source =
        read(
            "a.json",
            "[{\"name\":\"Ann\",\"pots\":[{\"m\":1},{\"m\":2}]},{\"name\":\"Bo\",\"pots\":[{\"m\":3}");
    assertThat(source.tables()).hasSize(2);
    assertThat(source.tables().get(0).cells().rows()).isEqualTo(2);
    assertThat(source.tables().get(1).cells().rows()).isGreaterThanOrEqualTo(2);
    assertThat(said(source)).anyMatch(s -> s.contains("breaks off here"));
    SourceImport imported =
        SourceImport.of(ProfiledSource.of(source), Design.empty("d", "D"), ImportOptions.ALL);
    Draft draft = imported.edit().apply(new Draft(Design.empty("d", "D"), SampleRows.NONE));
    assertThat(draft.design().tables()).hasSize(2);
    assertThat(draft.rows().count()).isGreaterThanOrEqualTo(4);
  }

  /** Half a file or a part of it taken out, at every place: a table or a message. */
  @Tag("long")
  @Test
  void jsonBrokenOffAnywhereIsReadOrRefused() throws Exception {
    String whole =
        "[{\"name\":\"Ann\",\"pots\":[{\"m\":1,\"t\":[\"a\",\"b\"]},{\"m\":2}]},{\"n\":{\"x\":[1,2]}}]";
    for (int end = 1; end < whole.length(); end++) {
      try {
        Source source = read("cut.json", whole.substring(0, end));
        SourceImport imported =
            SourceImport.of(ProfiledSource.of(source), Design.empty("d", "D"), ImportOptions.ALL);
        Draft draft = imported.edit().apply(new Draft(Design.empty("d", "D"), SampleRows.NONE));
        int rows = source.tables().stream().mapToInt(t -> t.cells().rows()).sum();
        assertThat(draft.rows().count()).as(whole.substring(0, end)).isEqualTo(rows);
      } catch (UnreadableFileException e) {
        assertThat(e).hasMessageContaining("cut.json");
      }
    }
  }

  private static String pots(int from, int to) {
    return IntStream.range(from, to)
        .mapToObj(i -> i + ",\"Pot " + i + "\",\"" + (i % 7) + "\"\n")
        .collect(Collectors.joining());
  }

  @Tag("long")
  @Test
  void oneQuotationMarkLeftOpenCostsItsLineOnly() throws Exception {
    String text = "No,Name,Shelf\n" + pots(1, 21) + "21,\"Big pot,3\n" + pots(22, 500);
    Source source = read("a.csv", text);
    var cells = source.tables().getFirst().cells();
    assertThat(cells.rows()).isEqualTo(499);
    assertThat(cells.row(20)).containsExactly("21", "\"Big pot", "3");
    assertThat(cells.row(21)).containsExactly("22", "Pot 22", "1");
    assertThat(source.problems())
        .singleElement()
        .satisfies(
            problem -> {
              assertThat(problem.place()).endsWith("line 22");
              assertThat(problem.message()).contains("never closed");
            });
  }

  @Tag("long")
  @ParameterizedTest
  @CsvSource({"0", "1", "2"})
  void aMarkLeftOpenInAnyColumnLosesNoRow(int column) throws Exception {
    Tries.of(60)
        .forEach(
            seed -> {
              try {
                var random = new Random(seed + column);
                int bad = random.nextInt(1, 90);
                var text = new StringBuilder("No,Name,Note\n");
                for (int i = 0; i < 100; i++) {
                  String[] cells = {String.valueOf(i), "\"Pot, " + i + "\"", "\"a\nb \"\"c\"\"\""};
                  if (random.nextInt(3) > 0) {
                    cells[2] = "plain";
                  }
                  if (i == bad) {
                    cells = new String[] {"5", "pot", "note"};
                    cells[column] = "\"" + cells[column];
                  }
                  text.append(String.join(",", cells)).append('\n');
                }
                Source source = read("b" + column + ".csv", text.toString());
                assertThat(source.tables().getFirst().cells().rows())
                    .as("seed " + seed)
                    .isEqualTo(100);
                assertThat(source.problems()).as("seed " + seed).hasSize(1);
              } catch (Exception e) {
                throw new AssertionError("seed " + seed, e);
              }
            });
  }

  @Test
  void cellsThatRunOverLinesAsTheyShouldAreNotDoubted() throws Exception {
    Source source =
        read(
            "a.csv",
            "No,Note\n1,\"12 Kiln Lane,\r\nRye, Sussex, \"\"UK\"\"\" \n2,\"x\"\n3,\"\n\"\n");
    assertThat(source.problems()).isEmpty();
    assertThat(source.tables().getFirst().cells().rows()).isEqualTo(3);
    assertThat(source.tables().getFirst().cells().text(0, 1)).contains("Rye, Sussex, \"UK\"");
  }

  @Test
  void aLoneReturnInTheLastQuotedCellIsNoRowLost() throws Exception {
    Source source = read("a.csv", "No,Note\n1,\"a\rb\"\n2,xx\n3,\"c\r\"\n");
    assertThat(source.tables().getFirst().cells().rows()).isEqualTo(3);
    assertThat(source.tables().getFirst().cells().text(0, 1)).isEqualTo("a\rb");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      value = {
        "a.sql ~ CREATE TABLE kiln (id int); ~ SQL script",
        "a.csv ~ %PDF-1.7 something ~ PDF document",
        "a.db ~ SQLite format 3 ~ SQLite database",
        "a.xlsx ~ No,Name ~ no workbook"
      })
  void whatHoldsNoTablesIsSaidToBeWhatItIs(String name, String content, String says) {
    assertThatThrownBy(() -> read(name, content))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining(says);
  }

  @Test
  void noMessageNamesAClass() throws Exception {
    for (String broken : List.of("<a><b></a>", "<a>&x;</a>", "<a", "\u0001")) {
      Path file = zip("b.ods", "mimetype", "x", "content.xml", broken);
      assertThatThrownBy(() -> read(file))
          .isInstanceOf(UnreadableFileException.class)
          .satisfies(
              e -> assertThat(e.getMessage()).doesNotContain("Exception").doesNotContain("com."));
      Path sheet =
          zip(
              "b.xlsx",
              "xl/workbook.xml",
              broken,
              "[Content_Types].xml",
              broken,
              "_rels/.rels",
              broken);
      assertThatThrownBy(() -> read(sheet))
          .satisfies(
              e -> assertThat(e.getMessage()).doesNotContain("Exception").doesNotContain("com."));
    }
    assertThat(Said.by(new IOException("com.ctc.wstx.exc.WFCException: Unexpected close")))
        .isEqualTo("Unexpected close");
    assertThat(Said.by(new IOException())).isEqualTo("a part of it makes no sense");
  }
}
