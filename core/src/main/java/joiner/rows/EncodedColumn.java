package joiner.rows;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * One column of a source, each cell a number that stands for its text. Equal texts have equal
 * numbers; 0 stands for the empty cell.
 */
public final class EncodedColumn {
  /** The code of an empty cell. */
  public static final int EMPTY = 0;

  private final String header;
  private final int[] codes;
  private final List<String> texts;

  private EncodedColumn(String header, int[] codes, List<String> texts) {
    this.header = header;
    this.codes = codes;
    this.texts = texts;
  }

  /** The column's name as the source has it. */
  public String header() {
    return header;
  }

  /** How many rows there are. */
  public int rows() {
    return codes.length;
  }

  /** The code of a row's cell, rows from 0. */
  public int code(int row) {
    return codes[row];
  }

  /** How many codes are in use, the empty one included even where no cell is empty. */
  public int codes() {
    return texts.size();
  }

  /** The text a code stands for. */
  public String textOf(int code) {
    return texts.get(code);
  }

  /** The text of a row's cell; empty text for an empty cell. */
  public String text(int row) {
    return texts.get(codes[row]);
  }

  /** How many rows each code has; its length is {@link #codes()}. */
  public int[] counts() {
    int[] counts = new int[texts.size()];
    for (int code : codes) {
      counts[code]++;
    }
    return counts;
  }

  /** A column of those texts; the empty text is the empty cell. */
  public static EncodedColumn of(String header, List<String> cells) {
    var builder = new Builder(header, 0);
    for (int row = 0; row < cells.size(); row++) {
      builder.set(row, cells.get(row));
    }
    return builder.build(cells.size());
  }

  /** Collects a column's cells. */
  static final class Builder {
    private final String header;
    private final Map<String, Integer> known = new HashMap<>();
    private final java.util.ArrayList<String> texts = new java.util.ArrayList<>();
    private int[] codes;

    Builder(String header, int expectedRows) {
      this.header = header;
      this.codes = new int[Math.max(16, expectedRows)];
      known.put("", EMPTY);
      texts.add("");
    }

    /** Sets the cell of a row; rows left out are empty. */
    void set(int row, String text) {
      if (row >= codes.length) {
        codes = Arrays.copyOf(codes, Math.max(row + 1, codes.length * 2));
      }
      Integer code = known.get(text);
      if (code == null) {
        code = texts.size();
        known.put(text, code);
        texts.add(text);
      }
      codes[row] = code;
    }

    EncodedColumn build(int rows) {
      return new EncodedColumn(header, Arrays.copyOf(codes, rows), List.copyOf(texts));
    }
  }
}
