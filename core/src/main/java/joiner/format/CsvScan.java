package joiner.format;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * Goes through delimited text in UTF-8 (RFC 4180, with any separator and quote of ASCII) and shows
 * each cell where it stands, so that nothing is made of a cell that nobody looks at. A quote within
 * a cell that is not quoted stands for itself; lines end with CR, LF or both.
 */
public final class CsvScan {
  private static final int BLOCK = 1 << 15;
  private static final char BYTE_ORDER_MARK = '\uFEFF';

  private final InputStream in;
  private final char separator;
  private final char quote;
  private final Cells cells;
  private final CharsetDecoder decoder = StandardCharsets.UTF_8.newDecoder();
  private final ByteBuffer bytes = ByteBuffer.allocate(BLOCK);
  private char[] chars = new char[BLOCK];
  private char[] unquoted = new char[256];
  private int at;
  private int end;
  private final int longest;
  private long line = 1;
  private long began = 1;
  private boolean ended;

  /** Takes cells. */
  public interface Cells {
    /** The next cell of the record; its characters are overwritten afterwards. */
    void cell(char[] chars, int offset, int length);

    /**
     * The record ends.
     *
     * @param line where it began, from 1
     * @param empty whether nothing stands on its line, not even quotes
     */
    void endRecord(long line, boolean empty) throws IOException;
  }

  /** Scans text whose cells may have any length. */
  CsvScan(InputStream in, char separator, char quote, Cells cells) {
    this(in, separator, quote, Integer.MAX_VALUE, cells);
  }

  /**
   * Scans text.
   *
   * @param separator a character of ASCII
   * @param quote another one
   * @param longest how many characters a cell in quotes has at most
   */
  public CsvScan(InputStream in, char separator, char quote, int longest, Cells cells) {
    this.longest = longest;
    this.in = in;
    this.separator = separator;
    this.quote = quote;
    this.cells = cells;
    bytes.flip();
  }

  /**
   * Goes through all of it.
   *
   * @throws java.nio.charset.CharacterCodingException if it is no UTF-8
   * @throws MalformedException if something stands behind a closing quote, or a quote is not closed
   *     within the length of a cell; the records before that one were shown
   */
  public void run() throws IOException {
    more(0);
    if (at < end && chars[at] == BYTE_ORDER_MARK) {
      at++;
    }
    while (at < end || more(at)) {
      record();
    }
  }

  /** Text that is no delimited text. */
  public static final class MalformedException extends IOException {
    private static final long serialVersionUID = 1L;

    MalformedException(String what, long line) {
      super(what + " in line " + line);
    }
  }

  /** The line, from 1, in which the record began that was looked at last. */
  public long recordLine() {
    return began;
  }

  private void record() throws IOException {
    began = line;
    boolean first = true;
    boolean empty = true;
    boolean goesOn = true;
    while (goesOn) {
      boolean quoted = (at < end || more(at)) && chars[at] == quote;
      int length = quoted ? quotedCell() : plainCell();
      empty = first && !quoted && length == 0;
      first = false;
      goesOn = at < end && chars[at] == separator;
      at += goesOn ? 1 : 0;
    }
    lineEnd();
    cells.endRecord(began, empty);
  }

  /** Passes over the end of a line; at the end of the text there may be none. */
  private void lineEnd() throws IOException {
    if (at == end) {
      return;
    }
    boolean both = chars[at] == '\r';
    at++;
    line++;
    if (both && (at < end || more(at)) && chars[at] == '\n') {
      at++;
    }
  }

  /** Shows a cell without quotes; ends on the separator, the end of the line or of the text. */
  private int plainCell() throws IOException {
    int start = at;
    while (true) {
      int stop = endOfCell(chars, at, end, separator);
      at = stop;
      if (stop < end) {
        cells.cell(chars, start, stop - start);
        return stop - start;
      }
      int length = stop - start;
      if (!more(start)) {
        cells.cell(chars, at - length, length);
        return length;
      }
      start = 0;
      at = length;
    }
  }

  /** The first place from one on where a cell without quotes ends; the end if it does not. */
  private static int endOfCell(char[] chars, int from, int end, char separator) {
    int i = from;
    while (i < end) {
      char c = chars[i];
      if (c == separator || (c <= '\r' && (c == '\n' || c == '\r'))) {
        break;
      }
      i++;
    }
    return i;
  }

  /** Shows a cell in quotes. */
  private int quotedCell() throws IOException {
    long opened = line;
    at++;
    int length = 0;
    while (true) {
      if (at == end && !more(at)) {
        throw new MalformedException("a quote is never closed that opens", opened);
      }
      char c = chars[at++];
      if (c == quote) {
        boolean doubled = (at < end || more(at)) && chars[at] == quote;
        if (!doubled) {
          afterQuote();
          break;
        }
        at++;
      } else if (c == '\n' || c == '\r') {
        boolean both = c == '\r' && (at < end || more(at)) && chars[at] == '\n';
        line += both ? 0 : 1; // Of two the second is counted.
      }
      if (length == longest) {
        throw new MalformedException("a cell is too long that begins", opened);
      }
      if (length == unquoted.length) {
        unquoted = Arrays.copyOf(unquoted, 2 * length);
      }
      unquoted[length++] = c;
    }
    cells.cell(unquoted, 0, length);
    return length;
  }

  private void afterQuote() throws IOException {
    boolean over =
        (at == end && !more(at))
            || chars[at] == separator
            || chars[at] == '\n'
            || chars[at] == '\r';
    if (!over) {
      throw new MalformedException("something stands behind a closing quote", line);
    }
  }

  /**
   * Reads more, keeping what stands from a place on, which is then the first.
   *
   * @return whether there is more
   */
  private boolean more(int keep) throws IOException {
    int kept = end - keep;
    System.arraycopy(chars, keep, chars, 0, kept);
    at -= keep;
    end = kept;
    if (end == chars.length) {
      chars = Arrays.copyOf(chars, 2 * chars.length);
    }
    while (end == kept && !ended) {
      decode();
    }
    return end > kept;
  }

  private void decode() throws IOException {
    bytes.compact();
    int read = in.read(bytes.array(), bytes.position(), bytes.remaining());
    boolean last = read < 0;
    bytes.position(bytes.position() + Math.max(read, 0));
    bytes.flip();
    CharBuffer room = CharBuffer.wrap(chars, end, chars.length - end);
    CoderResult result = decoder.decode(bytes, room, last);
    if (result.isError()) {
      result.throwException();
    }
    if (last && result.isUnderflow()) {
      decoder.flush(room);
      ended = true;
    }
    end = room.position();
  }
}
