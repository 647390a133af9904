package joiner.format;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import de.siegmar.fastcsv.writer.QuoteStrategy;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.Rows;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.QuoteMode;

/**
 * Writes the rows of a table as delimited text, so that reading it in the same form gives the same
 * rows.
 */
final class CsvText {
  private static final String BYTE_ORDER_MARK = "\uFEFF";

  private final Table table;
  private final RowsForm form;
  private final Habits habits;

  /**
   * What a file does that its descriptor does not say.
   *
   * @param lines how its lines end
   * @param marked whether it begins with a byte-order mark
   */
  record Habits(String lines, boolean marked) {
    /** As Joiner writes by itself. */
    static final Habits OWN = new Habits("\n", false);

    private static final Pattern FIRST_BREAK = Pattern.compile("\r\n|\n");

    /** Those of a file that begins with that text. */
    static Habits of(String beginning) {
      var first = FIRST_BREAK.matcher(beginning);
      return new Habits(first.find() ? first.group() : "\n", beginning.startsWith(BYTE_ORDER_MARK));
    }
  }

  CsvText(Table table, RowsForm form, Habits habits) {
    this.table = table;
    this.form = form;
    this.habits = habits;
  }

  /**
   * The file with some of the rows.
   *
   * @return empty where the form has no way to say one of the values, as an encoding that lacks a
   *     letter
   */
  Optional<byte[]> write(Rows rows, int from, int to) {
    RowsForm.Dialect dialect = form.dialect();
    if (!dialect.isWritable()) {
      return Optional.empty();
    }
    Optional<List<List<String>>> lines = lines(rows, from, to);
    if (lines.isEmpty()) {
      return Optional.empty();
    }
    String text = dialect.isUsual() ? usual(lines.get()) : unusual(lines.get());
    boolean unicode = dialect.charset().name().startsWith("UTF");
    return encoded(habits.marked() && unicode ? BYTE_ORDER_MARK + text : text);
  }

  private Optional<List<List<String>>> lines(Rows rows, int from, int to) {
    var lines = new ArrayList<List<String>>();
    if (!form.dialect().headerRows().isEmpty()) {
      lines.add(table.namesOf(table.fieldIds()));
    }
    List<FieldId> fields = table.fieldIds();
    for (int row = from; row < to; row++) {
      var cells = new ArrayList<String>(fields.size());
      for (int i = 0; i < fields.size(); i++) {
        Optional<String> cell = form.cells().get(i).write(rows.cell(row, fields.get(i)));
        if (cell.isEmpty()) {
          return Optional.empty();
        }
        cells.add(cell.get());
      }
      lines.add(cells);
    }
    return Optional.of(lines);
  }

  private String lineEnd() {
    return form.dialect().lineTerminator().orElse(habits.lines());
  }

  private String usual(List<List<String>> lines) {
    var text = new StringWriter();
    RowsForm.Dialect dialect = form.dialect();
    char quote = dialect.quote().orElseThrow();
    var builder =
        CsvWriter.builder()
            .fieldSeparator(dialect.delimiter().charAt(0))
            .quoteCharacter(quote)
            .lineDelimiter(lineEnd().equals("\n") ? LineDelimiter.LF : LineDelimiter.CRLF);
    dialect.comment().ifPresent(builder::commentCharacter);
    try (CsvWriter csv = builder.quoteStrategy(new Needed(table.fields().size())).build(text)) {
      lines.forEach(csv::writeRecord);
    } catch (IOException e) {
      throw new UncheckedIOException(e); // A text in memory is always writable.
    }
    return text.toString();
  }

  /**
   * Quotes what would not be read back otherwise: an empty line would be no row at all, and a mark
   * at the very beginning would be taken for the encoding's.
   */
  private record Needed(int columns) implements QuoteStrategy {
    @Override
    public boolean quoteEmpty(int line, int column) {
      return columns == 1;
    }

    @Override
    public boolean quoteValue(int line, int column, String value) {
      return column == 0 && value.startsWith(BYTE_ORDER_MARK);
    }
  }

  private String unusual(List<List<String>> lines) {
    var text = new StringWriter();
    RowsForm.Dialect dialect = form.dialect();
    CSVFormat format =
        CSVFormat.Builder.create()
            .setDelimiter(dialect.delimiter())
            .setQuote(dialect.quote().orElse(null))
            .setEscape(dialect.escape().orElse(null))
            .setQuoteMode(dialect.quote().isPresent() ? QuoteMode.ALL : QuoteMode.NONE)
            .setRecordSeparator(lineEnd())
            .get();
    try (var csv = new CSVPrinter(text, format)) {
      for (List<String> cells : lines) {
        csv.printRecord(cells);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e); // A text in memory is always writable.
    }
    return text.toString();
  }

  private Optional<byte[]> encoded(String text) {
    try {
      ByteBuffer bytes = form.dialect().charset().newEncoder().encode(CharBuffer.wrap(text));
      byte[] array = new byte[bytes.remaining()];
      bytes.get(array);
      return Optional.of(array);
    } catch (CharacterCodingException e) {
      return Optional.empty(); // The encoding has no such letter.
    }
  }

  /** The file with all rows as Joiner writes by itself; there is always one. */
  static byte[] own(Table table, Rows rows) {
    return new CsvText(table, RowsForm.own(table), Habits.OWN)
        .write(rows, 0, rows.count())
        .orElseGet(
            () -> {
              throw new IllegalStateException("the rows of " + table.name() + " are no text");
            });
  }

  /** How a file begins, as far as its habits show. */
  static String beginning(byte[] bytes, RowsForm form) {
    int length = Math.min(bytes.length, 1 << 16);
    var charset = bytes.length == 0 ? StandardCharsets.UTF_8 : form.dialect().charset();
    return new String(bytes, 0, length, charset);
  }
}
