package joiner.source;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
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
import joiner.format.UnreadableFileException;

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
          new TextRows(
              file,
              sinks.table(Source.stem(String.valueOf(file.getFileName()))),
              problems,
              shape.headerLine());
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
      TextRows rows,
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
      read(text, shape, fromLine - 1, NO_QUOTE, rows, file, options, null, 1);
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
      TextRows rows,
      Path file,
      ReadingOptions options,
      @org.jspecify.annotations.Nullable CountedInput counted,
      long size)
      throws IOException, UnreadableFileException {
    TextRecord last = null;
    long line = linesBefore;
    try (CsvReader<TextRecord> csv =
        CsvReader.builder()
            .fieldSeparator(shape.separator())
            .quoteCharacter(quote)
            .skipEmptyLines(false)
            .allowMissingFields(true)
            .allowExtraFields(true)
            .allowExtraCharsAfterClosingQuote(true)
            .build(new TextRecord.Handler(), text)) {
      for (TextRecord record : csv) {
        if (last != null) {
          rows.take(line, last);
        }
        last = record;
        line = linesBefore + record.line();
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
      if (last == null || quote == NO_QUOTE) {
        throw new UnreadableFileException(
            file,
            (int) line + 1,
            "a cell is too long for a table (" + deepest(e).getMessage() + ").");
      }
      rows.take(line, last);
      return line + 1 + last.breaks();
    }
    if (last != null && last.lastCellHasBreaks() && last.count() != rows.width()) {
      return line; // It runs over lines and has not the usual number of cells: never closed.
    }
    if (last != null) {
      rows.take(line, last);
    }
    return 0;
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
    var rows = new TextRows(shown, tables.table(name), problems, shape.headerLine());
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
