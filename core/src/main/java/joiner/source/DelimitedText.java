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
import java.util.function.LongSupplier;
import joiner.format.CsvScan;
import joiner.format.UnreadableFileException;

/**
 * Delimited text of any separator and encoding. Lines with too few cells are filled up with empty
 * ones, those with too many get columns of their own, and both are told; a quotation mark that is
 * never closed costs no line after it.
 */
final class DelimitedText implements SourceReader {
  /** Stands for no quotation mark at all. */
  private static final char NO_QUOTE = '\u0000';

  /** Longest line in characters that is looked at. */
  private static final int LONGEST = 256 << 20;

  /** Quotation marks left open after which those of the rest of a text mean nothing any more. */
  private static final int MOST_DOUBTS = 20;

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

  /**
   * Reads a file again whose encoding is known. What no character stands for in Windows-1252 was
   * told when it was read first.
   */
  static void again(Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException {
    TextShape shape = TextShape.of(file, options);
    boolean told = shape.charset().equals(TextShape.WINDOWS);
    try {
      read(
          file,
          shape,
          told ? CodingErrorAction.REPLACE : CodingErrorAction.REPORT,
          options,
          sinks,
          problems);
    } catch (CharacterCodingException e) {
      throw new UnreadableFileException(
          file, 0, "the text is no longer in " + shape.charset().name() + "; save it as such.");
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
    long left = 1;
    if (shape.isPlain() && unreadable == CodingErrorAction.REPORT) {
      try (var in = new CountedInput(Files.newInputStream(file), size, options)) {
        left = lines.plain(in);
      }
    }
    if (left > 0) {
      lines.read(() -> open(file, shape, unreadable, size, options), left, problems);
    }
    rows.end();
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
      new Lines(shown, shape, rows, options).read(() -> new StringReader(block), 1, problems);
      rows.end();
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

    /**
     * Reads text in which nothing is doubtful the quick way.
     *
     * @return the line with which something doubtful begins, from which on nothing was read yet; 0:
     *     all was read
     */
    long plain(InputStream in) throws IOException {
      var record = new TextRecord();
      var scan =
          new CsvScan(
              in,
              shape.separator(),
              shape.quote(),
              LONGEST,
              new CsvScan.Cells() {
                @Override
                public void cell(char[] chars, int offset, int length) {
                  record.add(chars, offset, length);
                }

                @Override
                public void endRecord(long line, boolean empty) {
                  rows.take(line, record);
                  record.begin(line);
                  if ((line & 0x3FF) == 0) {
                    options.checkStopped();
                  }
                }
              });
      try {
        scan.run();
        return 0;
      } catch (CsvScan.MalformedException e) {
        return scan.recordLine();
      } catch (UncheckedIOException e) {
        throw e.getCause();
      }
    }

    /** Reads the lines from one on, whatever stands in them. */
    void read(Text text, long from, ProblemLog problems)
        throws IOException, UnreadableFileException {
      long first = from;
      for (int doubts = 0; first > 0; doubts++) {
        long open = read(text, first, shape.quote());
        first = 0;
        if (open > 0) {
          boolean goOn = doubts < MOST_DOUBTS;
          problems.add(
              SourceProblem.inLine(
                  file,
                  open,
                  "a quotation mark is opened and never closed; "
                      + (goOn ? "in this line" : "from this line on")
                      + " quotation marks were read as plain characters. Close it, or write it"
                      + " twice to mean itself."));
          plain(text, open, goOn ? open : Long.MAX_VALUE);
          first = goOn ? open + 1 : 0;
        }
      }
    }

    /** Reads the lines from one to another, in which quotation marks mean themselves. */
    private void plain(Text text, long from, long to) throws IOException, UnreadableFileException {
      try (BufferedReader reader = skipped(text, from)) {
        if (to == Long.MAX_VALUE) {
          records(reader, from - 1, NO_QUOTE, () -> 0);
        } else {
          String line = reader.readLine();
          records(new StringReader(line == null ? "" : line), from - 1, NO_QUOTE, () -> 0);
        }
      }
    }

    private static BufferedReader skipped(Text text, long from) throws IOException {
      var reader = new BufferedReader(text.open());
      for (long line = 1; line < from; line++) {
        reader.readLine();
      }
      return reader;
    }

    /**
     * Reads from a line on.
     *
     * @return the line in which a quotation mark is opened and never closed, with which reading
     *     ended; 0: the text was read to its end
     */
    private long read(Text text, long from, char quote)
        throws IOException, UnreadableFileException {
      try (Reader reader = from == 1 ? text.open() : skipped(text, from)) {
        var watch = new QuoteWatch(reader, shape.separator(), quote);
        records(watch, from - 1, quote, watch::doubtful);
        return watch.doubtful() == 0 ? 0 : from - 1 + watch.doubtful();
      }
    }

    /**
     * Takes records as rows, up to the one in which something doubtful begins.
     *
     * @param doubtful the line of it, from 1 in this text; 0: nothing is doubtful so far
     */
    private void records(Reader text, long linesBefore, char quote, LongSupplier doubtful)
        throws IOException, UnreadableFileException {
      long line = linesBefore;
      try (CsvReader<TextRecord> csv = csv(text, quote)) {
        for (TextRecord record : csv) {
          line = linesBefore + record.line();
          long doubt = doubtful.getAsLong();
          if (doubt > 0 && record.line() + record.breaks() >= doubt) {
            return;
          }
          rows.take(line, record);
          if ((line & 0x3FF) == 0) {
            options.checkStopped();
          }
        }
      } catch (UncheckedIOException e) {
        throw e.getCause();
      } catch (CsvParseException e) {
        if (deepest(e) instanceof CharacterCodingException coding) {
          throw coding;
        }
        if (doubtful.getAsLong() == 0) {
          throw new UnreadableFileException(
              file, (int) line + 1, "a cell is too long for a table.");
        }
      }
    }

    private CsvReader<TextRecord> csv(Reader text, char quote) {
      return CsvReader.builder()
          .fieldSeparator(shape.separator())
          .quoteCharacter(quote)
          .skipEmptyLines(false)
          .allowMissingFields(true)
          .allowExtraFields(true)
          .allowExtraCharsAfterClosingQuote(true)
          .maxBufferSize(LONGEST)
          .build(new TextRecord.Handler(), text);
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
