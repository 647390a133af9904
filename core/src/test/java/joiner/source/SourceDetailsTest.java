package joiner.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.StringReader;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.rows.TableSink;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The parts that readers are made of, at their limits. */
class SourceDetailsTest {
  private static final Path FILE = Path.of("log.csv");

  /** Writes down what it is handed. */
  private static final class Recording implements TableSinks {
    private final List<String> headers = new ArrayList<>();
    private final List<String> cells = new ArrayList<>();
    private long rows;
    private int restarts;

    @Override
    public TableSink table(String name) {
      return sink(name);
    }

    @Override
    public SectionSink section(String name, TableSink parent) {
      return sink(name);
    }

    private SectionSink sink(String name) {
      return new SectionSink() {
        @Override
        public int column(String header) {
          headers.add(header);
          return headers.size() - 1;
        }

        @Override
        public void cell(int column, String text) {
          cells.add(name + column + ":" + text);
        }

        @Override
        public void cell(int column, char[] chars, int offset, int length) {
          cell(column, new String(chars, offset, length));
        }

        @Override
        public void endRow(long line) {
          rows++;
        }

        @Override
        public void belongsTo(int parentRow) {
          cells.add(name + " in row " + parentRow);
        }
      };
    }

    @Override
    public void restart() {
      restarts++;
    }
  }

  private final Recording kept = new Recording();
  private final ProblemLog problems = new ProblemLog();

  private BudgetedSinks budget(long bytes) {
    return new BudgetedSinks(kept, FILE, bytes, problems);
  }

  private List<String> told() {
    return problems.all().stream().map(SourceProblem::toString).toList();
  }

  @Test
  void columnsBeyondTheWidestSheetAreLeftOutAndToldOnce() {
    TableSink sink = budget(0).table("t");
    for (int i = 0; i < BudgetedSinks.MOST_COLUMNS + 3; i++) {
      assertThat(sink.column("c" + i)).as("places stay those of the file").isEqualTo(i);
    }
    assertThat(kept.headers).hasSize(BudgetedSinks.MOST_COLUMNS);
    assertThat(told())
        .containsExactly(
            "log.csv: there are more than 16384 columns; those after them were left out. Keep only"
                + " the columns you need.");
    sink.cell(BudgetedSinks.MOST_COLUMNS - 1, "last");
    sink.cell(BudgetedSinks.MOST_COLUMNS, "beyond");
    sink.cell(BudgetedSinks.MOST_COLUMNS - 1, "xlasty".toCharArray(), 1, 4);
    sink.cell(BudgetedSinks.MOST_COLUMNS, "beyond".toCharArray(), 0, 6);
    assertThat(kept.cells).containsExactly("t16383:last", "t16383:last");
  }

  @Test
  void theBudgetIsThatOfAllTablesUntilTheFileIsReadAnew() {
    BudgetedSinks sinks = budget(0);
    TableSink first = sinks.table("a");
    for (int i = 0; i < BudgetedSinks.MOST_COLUMNS; i++) {
      first.column("c");
    }
    sinks.table("b").column("left out");
    assertThat(kept.headers).hasSize(BudgetedSinks.MOST_COLUMNS);
    sinks.restart();
    assertThat(kept.restarts).isEqualTo(1);
    sinks.table("c").column("again");
    assertThat(kept.headers).hasSize(BudgetedSinks.MOST_COLUMNS + 1);
  }

  @Test
  void longNamesAreCutAndToldOnce() {
    TableSink sink = budget(0).table("t");
    sink.column("n".repeat(1000));
    assertThat(told()).isEmpty();
    sink.column("n".repeat(1001));
    sink.column("n".repeat(2000));
    assertThat(kept.headers)
        .containsExactly("n".repeat(1000), "n".repeat(1000) + "…", "n".repeat(1000) + "…");
    assertThat(told())
        .containsExactly("log.csv: a column's name has 1001 characters; it was cut short.");
  }

  @Test
  void longCellsAreCutAndToldOnce() {
    int most = 16 << 20;
    TableSink sink = budget(0).table("");
    sink.column("c");
    sink.cell(0, "x".repeat(most));
    assertThat(told()).isEmpty();
    sink.cell(0, "x".repeat(most + 1));
    char[] chars = "x".repeat(most + 2).toCharArray();
    sink.cell(0, chars, 0, most + 2);
    sink.cell(0, chars, 1, most);
    assertThat(kept.cells).hasSize(4).allSatisfy(cell -> assertThat(cell).hasSize(most + 2));
    assertThat(told())
        .containsExactly("log.csv: a cell has 16777217 characters; it was cut after 16777216.");
  }

  /** A larger file may spread over more cells: two for each byte, and twenty million always. */
  @ParameterizedTest
  @CsvSource({"0, 20000000", "10000000, 20000000", "10001000, 20002000"})
  void emptyCellsCountToo(long bytes, long most) {
    BudgetedSinks sinks = budget(bytes);
    TableSink sink = sinks.table("t");
    for (int i = 0; i < 1000; i++) {
      sink.column("c" + i);
    }
    for (long row = 0; row < most / 1000; row++) {
      sink.endRow(row);
    }
    assertThatThrownBy(() -> sink.endRow(0))
        .isInstanceOf(BudgetedSinks.UsedUp.class)
        .hasMessageContaining("more than " + most + " cells");
    assertThat(kept.rows).as("the row that broke it stays").isEqualTo(most / 1000 + 1);
    sinks.restart();
    sink.endRow(0);
  }

  @Test
  void sectionsSayWhichRowTheyBelongTo() {
    BudgetedSinks sinks = budget(0);
    TableSinks.SectionSink section = sinks.section("part", sinks.table("whole"));
    section.column("c");
    section.belongsTo(3);
    section.cell(0, "x");
    assertThat(kept.cells).containsExactly("part in row 3", "part0:x");
  }

  @Test
  void ofManyProblemsTheFirstFiftyAreToldAndTheRestCounted() {
    for (int i = 0; i < 50; i++) {
      problems.add(new SourceProblem("p" + i, "m"));
    }
    assertThat(problems.all()).hasSize(50);
    problems.add(new SourceProblem("p50", "m"));
    problems.add(new SourceProblem("p51", "m"));
    assertThat(told()).hasSize(51).last().isEqualTo("p49: and 2 more problems after this one.");
  }

  /** Marks that are never closed, by RFC 4180; {@code /} stands for a line break. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      quoteCharacter = '`',
      value = {
        "a,b/c,d ! 0",
        "\"a\",b ! 0",
        "\"a/b\",c ! 0",
        "\"a\"\"b\",c ! 0",
        "\"a\" ,c ! 0",
        "\"a\"b,c ! 0",
        "a\"b,c ! 0",
        "\"a/b\"c,d ! 1",
        "x/\"a/b\"c,d ! 2",
        "x,\"a/b ! 1",
        "x/y,\"a/b/ ! 2",
        "\"a\"\" ! 1",
        "\"a\" ! 0",
        "\"a/b\"/c ! 0",
        "x,,\"/ ! 1"
      })
  void aMarkThatIsNeverClosedIsFoundInItsLine(String text, long line) throws Exception {
    for (String end : List.of("\n", "\r\n", "\r")) {
      String written = text.strip().replace("/", end);
      try (var one = new QuoteWatch(new StringReader(written), ',', '"');
          var other = new QuoteWatch(new StringReader(written), ',', '"')) {
        while (one.read() >= 0) {
          assertThat(one.doubtful()).isLessThanOrEqualTo(line);
        }
        char[] block = new char[100];
        int read = other.read(block, 7, 90);
        assertThat(new String(block, 7, read)).isEqualTo(written);
        assertThat(other.read(block, 0, 90)).isEqualTo(-1);
        assertThat(one.doubtful()).as(written).isEqualTo(line);
        assertThat(other.doubtful()).as(written).isEqualTo(line);
      }
    }
  }

  private static TextShape shape(byte[] bytes) {
    return TextShape.of(bytes, false, ReadingOptions.DETECT);
  }

  private static TextShape shape(String text) {
    return shape(text.replace("/", "\n").getBytes(StandardCharsets.UTF_8));
  }

  @ParameterizedTest
  @CsvSource({
    "UTF-8, 0, UTF-8",
    "UTF-8, 3, UTF-8",
    "UTF-16BE, 2, UTF-16BE",
    "UTF-16LE, 2, UTF-16LE",
    "UTF-16BE, 0, UTF-16BE",
    "UTF-16LE, 0, UTF-16LE",
    "windows-1252, 0, windows-1252"
  })
  void theEncodingIsFound(Charset written, int mark, Charset found) {
    String text = "Glasur;Süd\nMoos;4\nAsche;5\n";
    TextShape shape = shape((mark > 0 ? "\uFEFF" + text : text).getBytes(written));
    assertThat(shape.charset()).isEqualTo(found);
    assertThat(shape.mark()).isEqualTo(mark);
    assertThat(shape.separator()).isEqualTo(';');
  }

  @Test
  void aLetterCutOffAtTheEndOfTheBeginningIsNoOtherEncoding() {
    byte[] whole = "name;place\nMara;Süd".getBytes(StandardCharsets.UTF_8);
    byte[] cut = java.util.Arrays.copyOf(whole, whole.length - 2);
    assertThat(TextShape.of(cut, true, ReadingOptions.DETECT).charset())
        .isEqualTo(StandardCharsets.UTF_8);
    assertThat(TextShape.of(cut, false, ReadingOptions.DETECT).charset())
        .isEqualTo(TextShape.WINDOWS);
  }

  @Test
  void aBeginningIsLookedAtUpToItsLastWholeLine() {
    byte[] bytes = "a;b\n1;2\n3;4;5;6;7".getBytes(StandardCharsets.UTF_8);
    assertThat(TextShape.of(bytes, true, ReadingOptions.DETECT).headerLine()).isEqualTo(1);
    assertThat(TextShape.of("a;b".getBytes(StandardCharsets.UTF_8), true, ReadingOptions.DETECT))
        .isEqualTo(new TextShape(StandardCharsets.UTF_8, 0, ';', '"', 1));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      quoteCharacter = '`',
      value = {
        "a,b/1,2/3,4 ! ,",
        "a;b/1,5;2/3,5;4 ! ;",
        "aTb/1,5T2/3T4 ! T",
        "a|b/1,5|2/3|4 ! |",
        "a/1/2 ! ,",
        "a,b,c;d/1,2,3;4/5,6,7;8 ! ;",
        "title; of it/1,2,3/4,5,6/7,8,9 ! ,",
        "a;b/1,2;3/4,5/6,7/9,1;2/3,4/5,6 ! ,"
      })
  void theSeparatorIsTheOneThatCutsMostEvenly(String text, String separator) {
    assertThat(shape(text.replace('T', '\t')).separator())
        .isEqualTo(separator.replace('T', '\t').charAt(0));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      quoteCharacter = '`',
      value = {
        "'a','b'/'1','2' ! '",
        "'a','b'/1,2 ! \"",
        "'a','b'/\"1\",'2'/'3','4' ! \"",
        "it's,b/'1',2/3,4 ! \""
      })
  void apostrophesStandAroundCellsOnlyWhereThatIsClear(String text, String quote) {
    assertThat(shape(text).quote()).isEqualTo(quote.charAt(0));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      quoteCharacter = '`',
      value = {
        "kiln,litres/Ember,120/Ash,60 ! 1",
        "Firing log/kiln,litres,cone/Ember,120,6/Ash,60,7 ! 2",
        "Firing log,,/,,/kiln,litres,cone/Ember,120,6/Ash,60,7 ! 3",
        "Ember,120/Ash,60/Big Tom,300 ! 0",
        "Ember,120/Ash,60/Big Tom,about 300 ! 1",
        "Ember,2026-03-14/Ash,14.3.2026 ! 0",
        "Ember,Ember,120/Ash,Ash,60 ! 0",
        "Ember,Ember,Ember,120/Ash,Ash,Ash,60 ! 1",
        "kiln,litres ! 1",
        "120,60 ! 1",
        "Ember,120/Ash/Big Tom,300 ! 0",
        "Ember,120/Ash, /Big Tom,300 ! 0",
        "Ember,25%/Ash,30 % ! 1"
      })
  void theLineOfTheColumnNamesIsFound(String text, int line) {
    assertThat(shape(text).headerLine()).isEqualTo(line);
  }

  @Test
  void anEmptyTextHasNoColumnNames() {
    assertThat(shape("").headerLine()).isZero();
    assertThat(TextShape.header(List.of())).isZero();
  }

  @Test
  void aShapeIsSaidInWords() {
    assertThat(new TextShape(StandardCharsets.UTF_8, 0, ',', '"', 1).words())
        .isEqualTo("comma, UTF-8");
    assertThat(new TextShape(TextShape.WINDOWS, 0, '\t', '"', 0).words())
        .isEqualTo("tab, Windows-1252, no column names");
    assertThat(new TextShape(StandardCharsets.UTF_16LE, 2, ';', '"', 3).words())
        .isEqualTo("semicolon, UTF-16LE, column names in line 3");
    assertThat(new TextShape(StandardCharsets.UTF_8, 0, '|', '"', 1).words())
        .startsWith("vertical bar");
    assertThat(new TextShape(StandardCharsets.UTF_8, 0, '~', '"', 1).words()).startsWith("“~”");
  }

  private static Source pasted(String block, ReadingOptions options) throws Exception {
    return DelimitedText.pasted("log", block.replace("/", "\n"), options);
  }

  private static List<String> lines(Source source) {
    var cells = source.tables().getFirst().cells();
    return IntStream.range(0, cells.rows())
        .mapToObj(row -> String.join("|", cells.row(row)))
        .toList();
  }

  @Test
  void columnNamesMayStandLowerAndSomeMayBeMissing() throws Exception {
    Source source =
        pasted(
            "skipped/kiln, ,cone/Ember,120,6",
            ReadingOptions.DETECT.withHeaderLine(2).withSeparator(','));
    assertThat(source.tables().getFirst().cells().headers())
        .containsExactly("kiln", "Column 2", "cone");
    assertThat(lines(source)).containsExactly("Ember|120|6");
    Source none = pasted("a,b/c,d", ReadingOptions.DETECT.withHeaderLine(0).withSeparator(','));
    assertThat(none.headerLine()).isEqualTo(OptionalInt.of(0));
    assertThat(lines(none)).containsExactly("a|b", "c|d");
  }

  @Test
  void rowsOfOtherLengthsAreKeptAndTold() throws Exception {
    Source source =
        pasted(
            "a,b/1/1,2,3/1,2,,/1,2, ,5//6,7",
            ReadingOptions.DETECT.withHeaderLine(1).withSeparator(','));
    assertThat(source.tables().getFirst().cells().headers())
        .containsExactly("a", "b", "Column 3", "Column 4");
    assertThat(lines(source)).containsExactly("1|||", "1|2|3|", "1|2||", "1|2| |5", "6|7||");
    assertThat(source.problems().stream().map(SourceProblem::toString))
        .containsExactly(
            "log, line 2: the row has 1 cells, the header 2; the missing ones were taken as empty."
                + " Add the missing separators.",
            "log, line 3: the row has 3 cells, the header 2; the others were kept in columns of"
                + " their own. Put quotation marks around cells that hold the separator.",
            "log, line 5: the row has 4 cells, the header 2; the others were kept in columns of"
                + " their own. Put quotation marks around cells that hold the separator.");
  }

  @Test
  void formulasAreKeptAsTextAndTold() throws Exception {
    String forty = "=" + "A".repeat(39);
    Source source =
        pasted(
            "a,b/" + forty + ",=/" + forty + "B,x",
            ReadingOptions.DETECT.withHeaderLine(1).withSeparator(','));
    assertThat(source.problems())
        .extracting(SourceProblem::message)
        .containsExactly(
            "a formula stands where a value is expected: "
                + forty
                + "; it was kept as text, not computed. Save the sheet with values.",
            "a formula stands where a value is expected: "
                + forty
                + "…; it was kept as text, not computed. Save the sheet with values.");
  }

  /** PostgreSQL takes 1,600 columns (its documentation, appendix Limits; from memory). */
  @ParameterizedTest
  @CsvSource({"1600, false", "1601, true"})
  void moreColumnsThanADatabaseTakesAreTold(int columns, boolean told) throws Exception {
    String header =
        IntStream.range(0, columns).mapToObj(i -> "c" + i).collect(Collectors.joining(","));
    Source source =
        pasted(header + "/1", ReadingOptions.DETECT.withHeaderLine(1).withSeparator(','));
    assertThat(source.problems().stream().anyMatch(p -> p.message().startsWith("there are 1601")))
        .isEqualTo(told);
    assertThat(source.tables().getFirst().cells().columns()).hasSize(columns);
  }

  @Test
  void twentyOpenMarksCostTheirLineEachTheNextOneTheRest() throws Exception {
    var text = new StringBuilder("a,b\n");
    for (int i = 1; i <= 22; i++) {
      text.append("\"x").append(i).append(",y\n\"q\",r\n");
    }
    Source source =
        pasted(text.toString(), ReadingOptions.DETECT.withHeaderLine(1).withSeparator(','));
    List<String> lines = lines(source);
    assertThat(lines).hasSize(44).startsWith("\"x1|y", "q|r", "\"x2|y", "q|r");
    assertThat(lines.get(39)).isEqualTo("q|r");
    assertThat(lines.get(43)).as("plain from the 21st on").isEqualTo("\"q\"|r");
    assertThat(source.problems().getFirst().toString())
        .startsWith("log, line 2: a quotation mark is opened and never closed; in this line");
    assertThat(source.problems().getLast().toString())
        .startsWith("log, line 42: a quotation mark is opened and never closed; from this line on");
  }

  @Test
  void recordsGrowAndKnowTheirLineBreaks() throws Exception {
    String wide =
        IntStream.range(0, 40).mapToObj(i -> "cell " + i).collect(Collectors.joining(","));
    Source source =
        pasted(wide + "/" + wide, ReadingOptions.DETECT.withHeaderLine(1).withSeparator(','));
    assertThat(lines(source)).containsExactly(wide.replace(',', '|'));
    Source broken =
        pasted(
            "a,b/\"1/2\",\"3/4\"/\"5\"x,6",
            ReadingOptions.DETECT.withHeaderLine(1).withSeparator(','));
    assertThat(lines(broken)).containsExactly("1\n2|3\n4", "5x|6");
  }

  /** ECMA-376: a sheet ends with column XFD. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      quoteCharacter = '`',
      value = {
        "<c r=\"XFD1\"/> ! ",
        "<c r=\"XFE1\"/> ! XFE",
        "<c r=\"A1\"/><c r=\"AAAA1\"/> ! AAAA",
        "<c  r=\"ZZZ9\"/> ! ZZZ",
        "<c R=\"ZZZ9\"/> ! ",
        "<c dr=\"ZZZ9\"/> ! ",
        "<c r =\"ZZZ9\"/> ! ",
        "<c r=\"zzz9\"/> ! ",
        "<c r=\"1ZZZ\"/> ! ",
        "<c r=\"AB1\" r=\"ZZZ1\"/> ! ZZZ",
        "r=\"ZZZ1\" ! "
      })
  void cellsBeyondTheLastColumnAreSeen(String xml, String beyond) {
    for (int cut = 0; cut < xml.length(); cut++) {
      var reach = new CellReach();
      byte[] bytes = xml.getBytes(StandardCharsets.UTF_8);
      reach.see(java.util.Arrays.copyOf(bytes, cut), cut);
      byte[] rest = java.util.Arrays.copyOfRange(bytes, cut, bytes.length + 9);
      reach.see(rest, bytes.length - cut);
      assertThat(reach.beyond()).as(xml).isEqualTo(java.util.Optional.ofNullable(beyond));
    }
  }

  @ParameterizedTest
  @CsvSource({
    "a.csv, %PDF-1.4, a PDF document",
    "a.csv, SQLite format 3, a SQLite database",
    "a.csv, Rar!, a compressed file",
    "a.csv, PAR1, a Parquet file",
    "a.csv, GIF89a, a picture",
    "a.sql, CREATE TABLE a, an SQL script",
    "a.ddl, CREATE TABLE a, an SQL script",
    "a.csv, kiln;litres, ",
    "sql.csv, a, "
  })
  void whatHoldsNoTablesIsToldByItsNameAndItsBeginning(String name, String head, String says) {
    assertThat(
            FileKind.otherThanTables(name, head.getBytes(StandardCharsets.ISO_8859_1)).orElse(""))
        .contains(says == null ? "" : says)
        .hasSize(
            says == null
                ? 0
                : FileKind.otherThanTables(name, head.getBytes(StandardCharsets.ISO_8859_1))
                    .orElseThrow()
                    .length());
    assertThat(
            FileKind.otherThanTables(name, head.getBytes(StandardCharsets.ISO_8859_1)).isPresent())
        .isEqualTo(says != null);
  }

  /** Of twenty bytes how many are control characters, and how many are NUL. */
  @ParameterizedTest
  @CsvSource({"2, 0, false", "3, 0, true", "3, 4, true", "3, 5, false", "0, 4, false"})
  void aTenthOfControlCharactersMakesNoTextUnlessEverySecondByteIsNone(
      int control, int nul, boolean binary) {
    byte[] head = "aaaaaaaaaa\t\n\r\t\n\r\t\n\r\t".getBytes(StandardCharsets.ISO_8859_1);
    for (int i = 0; i < control; i++) {
      head[i] = (byte) (i + 1);
    }
    for (int i = 0; i < nul; i++) {
      head[control + i] = 0;
    }
    assertThat(FileKind.otherThanTables("a.csv", head).isPresent()).isEqualTo(binary);
  }

  @Test
  void everyResourceOfADataPackageIsATable(@org.junit.jupiter.api.io.TempDir Path folder)
      throws Exception {
    java.nio.file.Files.writeString(
        folder.resolve("datapackage.json"),
        "{\"name\":\"log\",\"resources\":[{\"name\":\"kiln\",\"path\":\"kiln.csv\","
            + "\"schema\":{\"fields\":[{\"name\":\"name\"},{\"name\":\"litres\",\"type\":\"integer\"}]}},"
            + "{\"name\":\"glaze\",\"path\":\"gone.csv\",\"schema\":{\"fields\":[{\"name\":\"no\"}]}}]}");
    java.nio.file.Files.writeString(folder.resolve("kiln.csv"), "name,litres\nEmber,120\nAsh,\n");
    for (Path named : List.of(folder, folder.resolve("datapackage.json"))) {
      Source source = SourceFile.read(named, ReadingOptions.DETECT);
      assertThat(source.tables()).hasSize(2);
      assertThat(lines(source)).containsExactly("Ember|120", "Ash|");
      assertThat(source.tables().getFirst().cells().headers()).containsExactly("name", "litres");
      assertThat(source.problems()).isNotEmpty();
    }
    var stopped = ReadingOptions.DETECT.stoppedBy(() -> true);
    assertThatThrownBy(() -> SourceFile.read(folder, stopped))
        .isInstanceOf(java.util.concurrent.CancellationException.class);
  }
}
