package joiner.source;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * How delimited text is written, as its beginning shows. Common practice, no source: the separator
 * is the one that cuts most lines into the same number of cells; the column names stand in the
 * first line that fills about as many cells as the lines after it.
 *
 * @param charset its encoding
 * @param mark bytes of a byte order mark to skip
 * @param separator between cells
 * @param quote around cells
 * @param headerLine the line of the column names, from 1; 0: there are none
 */
record TextShape(Charset charset, int mark, char separator, char quote, int headerLine) {
  static final Charset WINDOWS = Charset.forName("windows-1252");
  private static final int LOOKED_AT = 256 * 1024;
  private static final int LINES = 200;
  private static final Pattern NUMBER_OR_DATE =
      Pattern.compile("[+-]?[\\d.,\\u00a0 ']*\\d%?|\\d{1,4}[-./]\\d{1,2}[-./]\\d{1,4}.*");

  /** Looks at the beginning of a file; what the options say stands. */
  static TextShape of(Path file, ReadingOptions options) throws IOException {
    byte[] head;
    try (var in = Files.newInputStream(file)) {
      head = in.readNBytes(LOOKED_AT);
    }
    return of(head, head.length == LOOKED_AT, options);
  }

  static TextShape of(byte[] head, boolean more, ReadingOptions options) {
    int mark = mark(head);
    Charset charset = options.charset().orElseGet(() -> charset(head, mark, more));
    String text = new String(head, mark, head.length - mark, charset);
    if (more && text.lastIndexOf('\n') > 0) {
      text = text.substring(0, text.lastIndexOf('\n') + 1);
    }
    char quote = quote(text);
    String shown = text;
    char separator = options.separator().orElseGet(() -> separator(shown, quote));
    int header =
        options.headerLine().isPresent()
            ? options.headerLine().getAsInt()
            : header(records(text, separator, quote), text);
    return new TextShape(charset, mark, separator, quote, header);
  }

  /** Whether only separators, quotes and ends of lines of ASCII mean anything, in UTF-8. */
  boolean isPlain() {
    return charset.equals(StandardCharsets.UTF_8) && separator < 128 && quote == '"';
  }

  private static int mark(byte[] head) {
    if (starts(head, 0xEF, 0xBB, 0xBF)) {
      return 3;
    }
    return starts(head, 0xFE, 0xFF) || starts(head, 0xFF, 0xFE) ? 2 : 0;
  }

  private static boolean starts(byte[] head, int... bytes) {
    for (int i = 0; i < bytes.length; i++) {
      if (head.length <= i || (head[i] & 0xFF) != bytes[i]) {
        return false;
      }
    }
    return true;
  }

  private static Charset charset(byte[] head, int mark, boolean more) {
    if (mark == 2) {
      return head[0] == (byte) 0xFE ? StandardCharsets.UTF_16BE : StandardCharsets.UTF_16LE;
    }
    int even = 0;
    int odd = 0;
    for (int i = 0; i < head.length; i++) {
      if (head[i] == 0 && i % 2 == 0) {
        even++;
      } else if (head[i] == 0) {
        odd++;
      }
    }
    if (Math.max(even, odd) > head.length / 5) {
      return even > odd ? StandardCharsets.UTF_16BE : StandardCharsets.UTF_16LE;
    }
    return mark == 3 || isUtf8(head, more) ? StandardCharsets.UTF_8 : WINDOWS;
  }

  private static boolean isUtf8(byte[] head, boolean more) {
    var decoder =
        StandardCharsets.UTF_8
            .newDecoder()
            .onMalformedInput(CodingErrorAction.REPORT)
            .onUnmappableCharacter(CodingErrorAction.REPORT);
    return !decoder
        .decode(ByteBuffer.wrap(head), CharBuffer.allocate(head.length + 1), !more)
        .isError();
  }

  /** A quotation mark around cells, or an apostrophe where cells clearly stand between those. */
  private static char quote(String text) {
    long apostrophes =
        Pattern.compile("(^|[,;\\t|])'[^'\\n]*'(?=[,;\\t|\\r\\n])", Pattern.MULTILINE)
            .matcher(text)
            .results()
            .count();
    return text.indexOf('"') < 0 && apostrophes > 2 ? '\'' : '"';
  }

  /**
   * The separator that cuts the lines most evenly. Any that cuts the first line just like nearly
   * all others goes before the comma, which decimal numbers have in them too.
   */
  private static char separator(String text, char quote) {
    char best = ',';
    double most = 0;
    for (char candidate : new char[] {'\t', ';', '|', ','}) {
      Evenness even = evenness(records(text, candidate, quote));
      if (even.share() >= 0.95 && even.first()) {
        return candidate;
      }
      if (even.share() > most) {
        most = even.share();
        best = candidate;
      }
    }
    return best;
  }

  /**
   * How evenly a separator cuts.
   *
   * @param share of lines with the usual number of cells, where that is more than one
   * @param first whether the first line is one of them
   */
  private record Evenness(double share, boolean first) {}

  private static Evenness evenness(List<Line> lines) {
    Map<Integer, Integer> counts = new HashMap<>();
    lines.forEach(line -> counts.merge(line.cells().size(), 1, Integer::sum));
    counts.remove(1);
    return counts.entrySet().stream()
        .max(Map.Entry.comparingByValue())
        .map(
            usual ->
                new Evenness(
                    (double) usual.getValue() / lines.size(),
                    lines.getFirst().cells().size() == usual.getKey()))
        .orElse(new Evenness(0, false));
  }

  /**
   * One record of the beginning.
   *
   * @param number where it begins, from 1
   */
  record Line(long number, List<String> cells) {
    long filled() {
      return cells.stream().filter(cell -> !cell.isBlank()).count();
    }
  }

  private static List<Line> records(String text, char separator, char quote) {
    var lines = new ArrayList<Line>();
    try (var csv =
        CsvReader.builder()
            .fieldSeparator(separator)
            .quoteCharacter(quote)
            .allowExtraFields(true)
            .allowMissingFields(true)
            .allowExtraCharsAfterClosingQuote(true)
            .ofCsvRecord(text)) {
      for (var record : csv) {
        if (lines.size() == LINES) {
          break;
        }
        lines.add(new Line(record.getStartingLineNumber(), record.getFields()));
      }
    } catch (CsvParseException | IOException e) {
      return lines; // A field too long for one cell; what came before it shows the shape.
    }
    return lines;
  }

  /** A first line too long to be looked at is taken for the column names. */
  private static int header(List<Line> lines, String text) {
    return lines.isEmpty() && !text.isBlank() ? 1 : header(lines);
  }

  static int header(List<Line> lines) {
    if (lines.isEmpty()) {
      return 0;
    }
    long usual = usual(lines);
    for (Line line : lines) {
      if (line.filled() >= Math.max(1, Math.ceil(usual * 0.8))) {
        boolean typed = looksLikeData(line, lines);
        return typed && line.equals(lines.getFirst()) ? 0 : (int) line.number();
      }
    }
    return (int) lines.getFirst().number();
  }

  /** How many cells most lines fill; of equally frequent numbers the largest. */
  private static long usual(List<Line> lines) {
    Map<Long, Integer> counts = new HashMap<>();
    lines.forEach(line -> counts.merge(line.filled(), 1, Integer::sum));
    return counts.entrySet().stream()
        .max(Map.Entry.<Long, Integer>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
        .map(Map.Entry::getKey)
        .orElse(1L);
  }

  /** Whether a line has numbers and dates wherever the lines after it have them, or repeats. */
  private static boolean looksLikeData(Line line, List<Line> lines) {
    List<Line> after = lines.stream().filter(other -> other.number() > line.number()).toList();
    if (after.isEmpty() || new HashSet<>(line.cells()).size() < line.cells().size() - 1) {
      return false;
    }
    int typed = 0;
    for (int column = 0; column < line.cells().size(); column++) {
      int place = column;
      boolean below =
          after.stream()
              .map(other -> place < other.cells().size() ? other.cells().get(place) : "")
              .filter(cell -> !cell.isBlank())
              .allMatch(cell -> NUMBER_OR_DATE.matcher(cell.strip()).matches());
      boolean here = NUMBER_OR_DATE.matcher(line.cells().get(column).strip()).matches();
      if (below && !here) {
        return false;
      }
      typed += below ? 1 : 0;
    }
    return typed > 0;
  }

  /** In words. */
  String words() {
    String between =
        switch (separator) {
          case ',' -> "comma";
          case ';' -> "semicolon";
          case '\t' -> "tab";
          case '|' -> "vertical bar";
          default -> "“" + separator + "”";
        };
    String names =
        switch (headerLine) {
          case 0 -> ", no column names";
          case 1 -> "";
          default -> ", column names in line " + headerLine;
        };
    return between + ", " + (charset.equals(WINDOWS) ? "Windows-1252" : charset.name()) + names;
  }
}
