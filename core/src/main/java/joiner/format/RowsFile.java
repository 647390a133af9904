package joiner.format;

import de.siegmar.fastcsv.reader.CommentStrategy;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.CsvRecordHandler;
import java.io.BufferedInputStream;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.model.Table;
import joiner.rows.RowSource;
import joiner.rows.Rows;
import joiner.rows.TableSink;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.jspecify.annotations.Nullable;

/**
 * The rows of a table in delimited text of whatever dialect its resource states; a missing value is
 * NULL. Usual quotes are read by the fast library, escapes and the like by the tolerant one. No
 * more than a line is held.
 */
final class RowsFile implements RowSource {
  /** Far beyond what fits in memory, so that only memory limits a cell or a row. */
  private static final int NO_LIMIT = Integer.MAX_VALUE / 4;

  private static final char BYTE_ORDER_MARK = '\uFEFF';

  private final Content content;
  private final Table table;
  private final RowsForm form;
  private final Path shownAs;
  private final Consumer<String> notices;
  private final int[] withoutForm;
  private final int[] emptyTexts;

  /** Where the bytes are. */
  interface Content {
    /** The bytes from the first on; whoever asks closes them. */
    InputStream open() throws IOException;
  }

  /**
   * Rows that stand in a text.
   *
   * @param shownAs the file named in errors
   * @param notices gets at each pass a sentence for everything that could not be taken as meant
   */
  RowsFile(Content content, Path shownAs, Table table, RowsForm form, Consumer<String> notices) {
    this.content = content;
    this.table = table;
    this.form = form;
    this.shownAs = shownAs;
    this.notices = notices;
    this.withoutForm = new int[table.fields().size()];
    this.emptyTexts = new int[table.fields().size()];
  }

  @Override
  public List<String> headers() {
    return table.namesOf(table.fieldIds());
  }

  /** All rows, in memory. */
  Rows rows() throws IOException {
    return Rows.of(table.fieldIds(), this);
  }

  /** A line of a file with its number, from 1. */
  private record Line(List<String> cells, long number) {}

  /**
   * Goes through the rows; a line that is none, or text in another encoding, ends the pass.
   *
   * @throws UnreadableFileException if the text is no rows of this table
   */
  @Override
  public void scan(TableSink sink) throws IOException {
    Arrays.fill(withoutForm, 0);
    Arrays.fill(emptyTexts, 0);
    try (var in = new BufferedInputStream(content.open())) {
      boolean wide = isWide(in);
      if (form.dialect().isPlain() && !wide) {
        plain(in, sink);
      } else if (form.dialect().isUsual()) {
        fast(in, sink);
      } else {
        tolerant(in, sink);
      }
      tell();
    } catch (CsvParseException
        | UncheckedIOException
        | CharacterCodingException
        | CsvScan.MalformedException e) {
      throw new UnreadableFileException(
          shownAs, 0, cause(e) + "; mend the file or save it as UTF-8 CSV again.");
    }
  }

  private static String cause(Exception e) {
    Throwable deepest = e;
    while (deepest.getCause() != null) {
      deepest = deepest.getCause();
    }
    return deepest instanceof CharacterCodingException
        ? "the text is not in the encoding it should be in"
        : "the CSV cannot be read (" + deepest.getMessage() + ")";
  }

  /** Plain text goes by without anything being made of its cells. */
  private void plain(InputStream in, TableSink sink) throws IOException {
    RowsForm.Dialect dialect = form.dialect();
    var shown = new PlainRows(sink);
    new CsvScan(in, dialect.delimiter().charAt(0), dialect.quote().orElseThrow(), shown).run();
    shown.end();
  }

  /** The records of a plain text as rows of the table. */
  private final class PlainRows implements CsvScan.Cells {
    private final TableSink sink;
    private final List<String> header = new ArrayList<>();
    private final boolean skipsEmpty = table.fields().size() != 1;
    private boolean inHeader = !form.dialect().headerRows().isEmpty();
    private int[] order = new int[0];
    private int[] places = new int[0];
    private boolean[] own = new boolean[0];
    private int cell;

    PlainRows(TableSink sink) {
      this.sink = sink;
      if (!inHeader) {
        begin();
      }
    }

    private void begin() {
      places = headers().stream().mapToInt(sink::column).toArray();
      order = IntStream.range(0, places.length).toArray();
      own = new boolean[places.length];
      for (int place = 0; place < own.length; place++) {
        own[place] = form.cells().get(place) == CellForm.OWN;
      }
    }

    @Override
    public void cell(char[] chars, int offset, int length) {
      if (inHeader) {
        header.add(new String(chars, offset, length));
      } else if (cell < order.length) {
        show(order[cell], chars, offset, length);
      }
      cell++;
    }

    private void show(int place, char[] chars, int offset, int length) {
      if (!own[place]) {
        String value = value(place, new String(chars, offset, length));
        if (value != null && !value.isEmpty()) {
          sink.cell(places[place], value);
        }
      } else if (length > 0) {
        sink.cell(places[place], chars, offset, length);
      }
    }

    @Override
    public void endRecord(long line, boolean empty) throws UnreadableFileException {
      int cells = cell;
      cell = 0;
      if (empty && skipsEmpty) {
        header.clear();
        return;
      }
      if (inHeader) {
        inHeader = false;
        begin();
        order = order(header).stream().mapToInt(Integer::intValue).toArray();
        return;
      }
      if (cells != order.length) {
        throw wrongLength(line, cells, order.length);
      }
      sink.endRow(line);
    }

    /** A text without a header line has columns all the same. */
    void end() throws UnreadableFileException {
      if (inHeader) {
        begin();
      }
    }
  }

  private void fast(InputStream in, TableSink sink) throws IOException {
    RowsForm.Dialect dialect = form.dialect();
    var builder =
        CsvReader.builder()
            .fieldSeparator(dialect.delimiter())
            .quoteCharacter(dialect.quote().orElseThrow())
            .skipEmptyLines(table.fields().size() != 1)
            .allowMissingFields(true)
            .allowExtraFields(true)
            .maxBufferSize(NO_LIMIT);
    if (dialect.comment().isPresent()) {
      builder.commentStrategy(CommentStrategy.SKIP).commentCharacter(dialect.comment().get());
    }
    var unlimited =
        CsvRecordHandler.builder()
            .maxFields(NO_LIMIT)
            .maxFieldSize(NO_LIMIT)
            .maxRecordSize(NO_LIMIT)
            .build();
    try (CsvReader<CsvRecord> csv = builder.build(unlimited, text(in))) {
      Stream<Line> lines =
          csv.stream().map(r -> new Line(r.getFields(), r.getStartingLineNumber()));
      show(lines.iterator(), sink);
    }
  }

  /** Whether a text begins with a mark of two bytes a character (The Unicode Standard, 23.8). */
  private static boolean isWide(InputStream bytes) throws IOException {
    bytes.mark(2);
    int mark = bytes.read() << 8 | bytes.read();
    bytes.reset();
    return mark == 0xFEFF || mark == 0xFFFE;
  }

  /** The text of a file without its byte-order mark; bytes that are no text end the reading. */
  private BufferedReader text(InputStream bytes) throws IOException {
    Charset charset = isWide(bytes) ? StandardCharsets.UTF_16 : form.dialect().charset();
    var text = new BufferedReader(new InputStreamReader(bytes, charset.newDecoder()));
    text.mark(1);
    if (text.read() != BYTE_ORDER_MARK) {
      text.reset();
    }
    return text;
  }

  private void tolerant(InputStream in, TableSink sink) throws IOException {
    RowsForm.Dialect dialect = form.dialect();
    var format =
        CSVFormat.Builder.create()
            .setDelimiter(dialect.delimiter())
            .setQuote(dialect.quote().orElse(null))
            .setEscape(dialect.escape().orElse(null))
            .setCommentMarker(dialect.comment().orElse(null))
            .setIgnoreSurroundingSpaces(dialect.skipInitialSpace())
            .setIgnoreEmptyLines(table.fields().size() != 1)
            .get();
    try (CSVParser csv = CSVParser.builder().setReader(text(in)).setFormat(format).get()) {
      Stream<Line> lines = csv.stream().map(r -> new Line(r.toList(), csv.getCurrentLineNumber()));
      show(lines.iterator(), sink);
    }
  }

  private void show(Iterator<Line> lines, TableSink sink) throws UnreadableFileException {
    List<Integer> order = order(header(lines));
    int[] places = headers().stream().mapToInt(sink::column).toArray();
    while (lines.hasNext()) {
      Line line = lines.next();
      if (!form.dialect().commentRows().contains((int) line.number())) {
        show(line, order, places, sink);
      }
    }
  }

  /** Names of the columns: one or more header lines joined, or the table's own. */
  private List<String> header(Iterator<Line> lines) {
    List<Integer> wanted = form.dialect().headerRows();
    int last = wanted.stream().mapToInt(Integer::intValue).max().orElse(0);
    var header = new ArrayList<String>();
    for (int row = 1; row <= last && lines.hasNext(); row++) {
      List<String> cells = lines.next().cells();
      if (wanted.contains(row)) {
        for (int i = 0; i < cells.size(); i++) {
          if (i < header.size()) {
            header.set(i, header.get(i) + form.dialect().headerJoin() + cells.get(i));
          } else {
            header.add(cells.get(i));
          }
        }
      }
    }
    return header.isEmpty() ? table.namesOf(table.fieldIds()) : header;
  }

  /** For each column of the file the place of its field in the table. */
  private List<Integer> order(List<String> header) throws UnreadableFileException {
    List<String> names = table.namesOf(table.fieldIds());
    Map<String, Integer> places = new HashMap<>();
    for (int i = 0; i < names.size(); i++) {
      places.put(names.get(i), i);
    }
    var order = new ArrayList<Integer>();
    for (String column : header) {
      Integer place = places.remove(column);
      if (place == null) {
        throw problem(
            1,
            "the column “"
                + column
                + "” is "
                + (names.contains(column) ? "there twice" : "no field of " + table.name())
                + "; the fields are "
                + String.join(", ", names)
                + ".");
      }
      order.add(place);
    }
    if (!places.isEmpty()) {
      throw problem(
          1,
          "the header lacks "
              + String.join(", ", names.stream().filter(places::containsKey).toList())
              + " of "
              + table.name()
              + ".");
    }
    return order;
  }

  private UnreadableFileException problem(long line, String message) {
    return new UnreadableFileException(shownAs, (int) line, message);
  }

  private void show(Line line, List<Integer> order, int[] places, TableSink sink)
      throws UnreadableFileException {
    if (line.cells().size() != order.size()) {
      throw wrongLength(line.number(), line.cells().size(), order.size());
    }
    for (int i = 0; i < order.size(); i++) {
      int place = order.get(i);
      String value = value(place, line.cells().get(i));
      if (value != null && !value.isEmpty()) {
        sink.cell(places[place], value);
      }
    }
    sink.endRow(line.number());
  }

  private UnreadableFileException wrongLength(long line, int cells, int columns) {
    return problem(
        line,
        "the row has "
            + cells
            + " fields, the header "
            + columns
            + "; a comma or a quote is missing or too many.");
  }

  private @Nullable String value(int place, String cell) {
    CellForm spelling = form.cells().get(place);
    if (spelling == CellForm.OWN) {
      return cell;
    }
    if (cell.isEmpty() && spelling.tellsEmptyFromMissing()) {
      emptyTexts[place]++;
      return null;
    }
    if (!spelling.hasForm(cell)) {
      withoutForm[place]++;
    }
    return spelling.read(cell);
  }

  private void tell() {
    for (int i = 0; i < table.fields().size(); i++) {
      String where = table.label() + " · " + table.fields().get(i).label();
      if (withoutForm[i] > 0) {
        notices.accept(
            where + ": " + withoutForm[i] + " cells have not the form that is stated; kept as is.");
      }
      if (emptyTexts[i] > 0) {
        notices.accept(
            where
                + ": "
                + emptyTexts[i]
                + " empty texts are taken as no value, as databases would.");
      }
    }
  }
}
