package joiner.source;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import java.io.BufferedInputStream;
import java.io.BufferedReader;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.OptionalInt;
import joiner.format.UnreadableFileException;
import org.jspecify.annotations.Nullable;

/**
 * Delimited text of any separator and encoding. Lines with too few cells are filled up with empty
 * ones, those with too many get columns of their own, and both are told; a quotation mark that is
 * never closed costs no line after it.
 */
final class DelimitedText implements SourceReader {
  /** Stands for no quotation mark at all. */
  private static final char NO_QUOTE = '\u0000';

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
    String name = Source.stem(String.valueOf(file.getFileName()));
    var rows = new TextRows(file, sinks.table(name), problems, shape.headerLine());
    var lines = new Lines(file, shape, rows, options);
    long size = Math.max(1, Files.size(file));
    lines.read(() -> open(file, shape, unreadable, size, options), problems);
    return new Understood(shape.words(), shape.headerLine());
  }

  private static Reader open(
      Path file, TextShape shape, CodingErrorAction unreadable, long size, ReadingOptions options)
      throws IOException {
    var in =
        new BufferedInputStream(
            new CountedInput(Files.newInputStream(file), size, options), 1 << 16);
    in.skipNBytes(shape.mark());
    return new InputStreamReader(
        in,
        shape
            .charset()
            .newDecoder()
            .onMalformedInput(unreadable)
            .onUnmappableCharacter(unreadable));
  }

  /** Reads a block as it is pasted from a spreadsheet. */
  static Source pasted(String name, String block, ReadingOptions options)
      throws UnreadableFileException {
    byte[] bytes = block.getBytes(StandardCharsets.UTF_8);
    TextShape shape = TextShape.of(bytes, false, options.withCharset(StandardCharsets.UTF_8));
    var tables = new LoadedTables();
    var problems = new ProblemLog();
    Path shown = Path.of(name);
    var rows = new TextRows(shown, tables.table(name), problems, shape.headerLine());
    try {
      new Lines(shown, shape, rows, options).read(() -> new StringReader(block), problems);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return new Source(
        name, shape.words(), OptionalInt.of(shape.headerLine()), tables.build(), problems.all());
  }

  /** Opens the text from its beginning. */
  private interface Text {
    Reader open() throws IOException;
  }

  /**
   * The lines of a text on their way into rows.
   *
   * @param file named in errors
   */
  private record Lines(Path file, TextShape shape, TextRows rows, ReadingOptions options) {

    void read(Text text, ProblemLog problems) throws IOException, UnreadableFileException {
      long open;
      try (Reader reader = text.open()) {
        open = read(reader, 0, shape.quote());
      }
      if (open > 0) {
        problems.add(
            SourceProblem.inLine(
                file,
                open,
                "a quotation mark is opened and never closed; from this line on quotation marks"
                    + " were read as plain characters. Close it, or write it twice to mean"
                    + " itself."));
        try (var reader = new BufferedReader(text.open())) {
          for (long line = 1; line < open; line++) {
            reader.readLine();
          }
          read(reader, open - 1, NO_QUOTE);
        }
      }
      rows.end();
    }

    /**
     * Reads records into rows. The last one is looked at before it is taken: the end of the text
     * closes a quotation mark that nobody closed.
     *
     * @return the line in which a quotation mark is opened and never closed; 0 if there is none
     */
    private long read(Reader text, long linesBefore, char quote)
        throws IOException, UnreadableFileException {
      TextRecord last = null;
      long line = linesBefore;
      try (CsvReader<TextRecord> csv = csv(text, quote)) {
        for (TextRecord record : csv) {
          if (last != null) {
            rows.take(line, last);
          }
          last = record;
          line = linesBefore + record.line();
          if ((line & 0x3FF) == 0) {
            options.checkStopped();
          }
        }
      } catch (CsvParseException | UncheckedIOException e) {
        return broken(e, line, quote, last);
      }
      if (last != null && last.lastCellHasBreaks() && last.count() != rows.width()) {
        return line; // It runs over lines and has not the usual number of cells.
      }
      if (last != null) {
        rows.take(line, last);
      }
      return 0;
    }

    private CsvReader<TextRecord> csv(Reader text, char quote) {
      return CsvReader.builder()
          .fieldSeparator(shape.separator())
          .quoteCharacter(quote)
          .skipEmptyLines(false)
          .allowMissingFields(true)
          .allowExtraFields(true)
          .allowExtraCharsAfterClosingQuote(true)
          .build(new TextRecord.Handler(), text);
    }

    /** A cell grew too long, as it does after a quotation mark that is never closed. */
    private long broken(RuntimeException e, long line, char quote, @Nullable TextRecord last)
        throws IOException, UnreadableFileException {
      if (deepest(e) instanceof CharacterCodingException coding) {
        throw coding;
      }
      if (last == null || quote == NO_QUOTE) {
        throw new UnreadableFileException(
            file,
            (int) line + 1,
            "a cell is too long for a table (" + deepest(e).getMessage() + ").");
      }
      rows.take(line, last);
      return line + 1 + last.breaks();
    }

    private static Throwable deepest(Throwable e) {
      return e.getCause() == null ? e : deepest(e.getCause());
    }
  }

  /** Tells how much of a file has been read. */
  private static final class CountedInput extends FilterInputStream {
    private final long size;
    private final ReadingOptions options;
    private long count;

    CountedInput(InputStream in, long size, ReadingOptions options) {
      super(in);
      this.size = size;
      this.options = options;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
      int read = super.read(into, from, length);
      count += Math.max(0, read);
      options.progress().accept((double) count / size);
      return read;
    }
  }
}
