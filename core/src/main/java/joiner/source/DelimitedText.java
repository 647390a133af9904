package joiner.source;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import joiner.format.UnreadableFileException;
import joiner.rows.TableSink;

/**
 * Delimited text of any separator and encoding. Lines with too few cells are filled up with empty
 * ones, those with too many get columns of their own, and both are told; a quotation mark that is
 * never closed costs no line after it.
 */
final class DelimitedText implements SourceReader {
  /** More columns than any database takes (from memory: PostgreSQL 1,600, Oracle 1,000). */
  private static final int MANY_COLUMNS = 1_600;

  @Override
  public Understood read(Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException {
    TextShape shape = TextShape.of(file, options);
    try {
      return read(file, shape, CodingErrorAction.REPORT, options, sinks, problems);
    } catch (CharacterCodingException e) {
      if (options.charset().isPresent()) {
        throw new UnreadableFileException(
            file, 0, "the text is not in " + shape.charset().name() + "; choose another encoding.");
      }
      sinks.restart();
      problems.add(
          SourceProblem.inLine(
              file,
              0,
              "not all of the text is in "
                  + shape.charset().name()
                  + "; it was read as Windows-1252, and what is no character there as �. Save it as"
                  + " UTF-8, or choose its encoding."));
      TextShape other = TextShape.of(file, options.withCharset(TextShape.WINDOWS));
      return read(file, other, CodingErrorAction.REPLACE, options, sinks, problems);
    }
  }

  private static Understood read(
      Path file,
      TextShape shape,
      CodingErrorAction unreadable,
      ReadingOptions options,
      TableSinks sinks,
      ProblemLog problems)
      throws IOException, UnreadableFileException {
    long size = Math.max(1, Files.size(file));
    try (var counted = new CountedInput(Files.newInputStream(file));
        var in = new BufferedInputStream(counted, 1 << 16)) {
      in.skipNBytes(shape.mark());
      Reader text =
          new InputStreamReader(
              in,
              shape
                  .charset()
                  .newDecoder()
                  .onMalformedInput(unreadable)
                  .onUnmappableCharacter(unreadable));
      var rows =
          new Rows(file, sinks.table(Source.stem(String.valueOf(file.getFileName()))), problems);
      long open = read(text, shape, 0, shape.quote(), rows, file, options, counted, size);
      if (open > 0) {
        reread(file, shape, open, rows, options, problems);
      }
      rows.end();
    }
    return new Understood(shape.words(), shape.headerLine());
  }

  /** Reads the lines from one whose quotation mark is never closed, taking quotes as they are. */
  private static void reread(
      Path file,
      TextShape shape,
      long fromLine,
      Rows rows,
      ReadingOptions options,
      ProblemLog problems)
      throws IOException, UnreadableFileException {
    problems.add(
        SourceProblem.inLine(
            file,
            fromLine,
            "a quotation mark is opened and never closed; from this line on quotation marks were"
                + " read as plain characters. Close it, or write it twice to mean itself."));
    try (var in = Files.newInputStream(file)) {
      in.skipNBytes(shape.mark());
      var text = new java.io.BufferedReader(new InputStreamReader(in, shape.charset()));
      for (long line = 1; line < fromLine; line++) {
        text.readLine();
      }
      read(text, shape, fromLine - 1, '\u0000', rows, file, options, null, 1);
    }
  }

  /**
   * Reads records into rows.
   *
   * @return the line in which a quotation mark is opened and never closed; 0 if there is none
   */
  private static long read(
      Reader text,
      TextShape shape,
      long linesBefore,
      char quote,
      Rows rows,
      Path file,
      ReadingOptions options,
      @org.jspecify.annotations.Nullable CountedInput counted,
      long size)
      throws IOException, UnreadableFileException {
    CsvRecord last = null;
    long line = linesBefore;
    try (CsvReader<CsvRecord> csv =
        CsvReader.builder()
            .fieldSeparator(shape.separator())
            .quoteCharacter(quote)
            .skipEmptyLines(false)
            .allowMissingFields(true)
            .allowExtraFields(true)
            .allowExtraCharsAfterClosingQuote(true)
            .ofCsvRecord(text)) {
      for (CsvRecord record : csv) {
        if (last != null) {
          rows.take(linesBefore + last.getStartingLineNumber(), last.getFields(), shape);
        }
        last = record;
        line = linesBefore + record.getStartingLineNumber();
        if ((line & 0x3FF) == 0) {
          options.checkStopped();
          if (counted != null) {
            options.progress().accept((double) counted.count() / size);
          }
        }
      }
    } catch (CsvParseException | java.io.UncheckedIOException e) {
      if (deepest(e) instanceof CharacterCodingException coding) {
        throw coding;
      }
      if (last == null || quote == '\u0000') {
        throw new UnreadableFileException(
            file,
            (int) line + 1,
            "a cell is too long for a table (" + deepest(e).getMessage() + ").");
      }
      rows.take(line, last.getFields(), shape);
      return line + 1 + breaks(last.getFields());
    }
    if (last != null && neverClosed(last, rows)) {
      return linesBefore + last.getStartingLineNumber();
    }
    if (last != null) {
      rows.take(linesBefore + last.getStartingLineNumber(), last.getFields(), shape);
    }
    return 0;
  }

  /** A last record that runs over lines and has not the usual number of cells. */
  private static boolean neverClosed(CsvRecord last, Rows rows) {
    String cell = last.getField(last.getFieldCount() - 1);
    return cell.indexOf('\n') >= 0 && last.getFieldCount() != rows.width();
  }

  private static long breaks(List<String> cells) {
    return cells.stream().flatMapToInt(String::chars).filter(c -> c == '\n').count();
  }

  private static Throwable deepest(Throwable e) {
    return e.getCause() == null ? e : deepest(e.getCause());
  }

  /** Reads a block as it is pasted from a spreadsheet. */
  static Source pasted(String name, String block, ReadingOptions options)
      throws UnreadableFileException {
    TextShape shape =
        TextShape.of(
            block.getBytes(StandardCharsets.UTF_8),
            false,
            options.withCharset(StandardCharsets.UTF_8));
    var tables = new LoadedTables();
    var problems = new ProblemLog();
    Path shown = Path.of(name);
    var rows = new Rows(shown, tables.table(name), problems);
    try {
      read(new java.io.StringReader(block), shape, 0, shape.quote(), rows, shown, options, null, 1);
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    rows.end();
    return new Source(
        name,
        shape.words(),
        java.util.OptionalInt.of(shape.headerLine()),
        tables.build(),
        problems.all());
  }

  /** Hands records on as rows of a table. */
  private static final class Rows {
    private final Path file;
    private final TableSink sink;
    private final ProblemLog problems;
    private int width;
    private int columns;
    private boolean started;

    Rows(Path file, TableSink sink, ProblemLog problems) {
      this.file = file;
      this.sink = sink;
      this.problems = problems;
    }

    /** Cells of a full line. */
    int width() {
      return width;
    }

    void take(long line, List<String> cells, TextShape shape) {
      if (!started && line < shape.headerLine()) {
        return;
      }
      if (!started) {
        started = true;
        width = cells.size();
        for (int i = 0; i < width; i++) {
          boolean named = shape.headerLine() > 0 && !cells.get(i).isBlank();
          addColumn(named ? cells.get(i) : "Column " + (i + 1));
        }
        if (width > MANY_COLUMNS) {
          problems.add(
              SourceProblem.inLine(
                  file,
                  line,
                  "there are "
                      + width
                      + " columns, more than a database table takes; keep only some of them, or"
                      + " turn the sheet so that they become rows."));
        }
        if (shape.headerLine() > 0) {
          return;
        }
      }
      row(line, cells);
    }

    private void row(long line, List<String> cells) {
      boolean empty = cells.size() == 1 && cells.getFirst().isEmpty();
      if (empty && width > 1) {
        return;
      }
      if (cells.size() < width) {
        problems.add(
            SourceProblem.inLine(
                file,
                line,
                "the row has "
                    + cells.size()
                    + " cells, the header "
                    + width
                    + "; the missing ones were taken as empty. Add the missing separators."));
      }
      for (int i = 0; i < cells.size(); i++) {
        String cell = cells.get(i);
        if (i < columns) {
          put(line, i, cell);
        } else if (!cell.isBlank()) {
          while (columns <= i) {
            addColumn("Column " + (columns + 1));
          }
          put(line, i, cell);
        }
      }
      if (cells.size() > width
          && cells.subList(width, cells.size()).stream().anyMatch(c -> !c.isBlank())) {
        problems.add(
            SourceProblem.inLine(
                file,
                line,
                "the row has "
                    + cells.size()
                    + " cells, the header "
                    + width
                    + "; the others were kept in columns of their own. Put quotation marks around"
                    + " cells that hold the separator."));
      }
      sink.endRow(line);
    }

    private void put(long line, int column, String cell) {
      if (cell.startsWith("=") && cell.length() > 1) {
        problems.add(
            SourceProblem.inLine(
                file,
                line,
                "a formula stands where a value is expected: "
                    + shortened(cell)
                    + "; it was kept as text, not computed. Save the sheet with values."));
      }
      sink.cell(column, cell);
    }

    private static String shortened(String text) {
      return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }

    private void addColumn(String header) {
      sink.column(header);
      columns++;
    }

    void end() throws UnreadableFileException {
      if (!started) {
        throw new UnreadableFileException(
            file, 1, "the file is empty; it needs a line with the column names.");
      }
    }
  }

  /** Counts the bytes read. */
  private static final class CountedInput extends java.io.FilterInputStream {
    private long count;

    CountedInput(InputStream in) {
      super(in);
    }

    long count() {
      return count;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
      int read = super.read(into, from, length);
      count += Math.max(0, read);
      return read;
    }
  }
}
