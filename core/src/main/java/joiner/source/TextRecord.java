package joiner.source;

import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.RecordType;
import java.util.Arrays;
import joiner.rows.TableSink;

/** The cells of one line of delimited text, as characters; filled anew for a later line. */
final class TextRecord {
  private char[] chars = new char[256];

  /** Where each cell ends; it begins where the one before it ends. */
  private int[] ends = new int[16];

  private int count;
  private long line;

  /** How many cells there are. */
  int count() {
    return count;
  }

  /** Where it begins, from 1, in what was read. */
  long line() {
    return line;
  }

  private int start(int cell) {
    return cell == 0 ? 0 : ends[cell - 1];
  }

  boolean isEmpty(int cell) {
    return start(cell) == ends[cell];
  }

  boolean isBlank(int cell) {
    for (int at = start(cell); at < ends[cell]; at++) {
      if (!Character.isWhitespace(chars[at])) {
        return false;
      }
    }
    return true;
  }

  boolean isFormula(int cell) {
    return ends[cell] - start(cell) > 1 && chars[start(cell)] == '=';
  }

  String text(int cell) {
    return new String(chars, start(cell), ends[cell] - start(cell));
  }

  /** Hands a cell on without making a text of it. */
  void put(int cell, TableSink sink) {
    sink.cell(cell, chars, start(cell), ends[cell] - start(cell));
  }

  /** How many line breaks stand within its cells. */
  long breaks() {
    long breaks = 0;
    for (int at = 0; at < start(count); at++) {
      breaks += chars[at] == '\n' ? 1 : 0;
    }
    return breaks;
  }

  /** Becomes the record that begins in that line, without cells as yet. */
  void begin(long startingLine) {
    count = 0;
    line = startingLine;
  }

  /** Takes a cell. */
  void add(char[] from, int offset, int length) {
    int start = start(count);
    if (start + length > chars.length) {
      chars = Arrays.copyOf(chars, Math.max(start + length, 2 * chars.length));
    }
    if (count == ends.length) {
      ends = Arrays.copyOf(ends, 2 * count);
    }
    System.arraycopy(from, offset, chars, start, length);
    ends[count++] = start + length;
  }

  /** Fills two records in turn, so that the one before the last can still be looked at. */
  static final class Handler extends CsvCallbackHandler<TextRecord> {
    private TextRecord filling = new TextRecord();
    private TextRecord other = new TextRecord();

    @Override
    protected RecordType getRecordType() {
      return RecordType.DATA;
    }

    @Override
    protected int getFieldCount() {
      return filling.count;
    }

    @Override
    protected void beginRecord(long startingLineNumber) {
      filling.begin(startingLineNumber);
    }

    @Override
    protected void addField(char[] buffer, int offset, int length, boolean quoted) {
      filling.add(buffer, offset, length);
    }

    @Override
    protected void setComment(char[] buffer, int offset, int length) {
      filling.add(buffer, offset, length);
    }

    @Override
    protected void setEmpty() {
      filling.add(new char[0], 0, 0);
    }

    @Override
    protected TextRecord buildRecord() {
      TextRecord built = filling;
      filling = other;
      other = built;
      return built;
    }
  }
}
