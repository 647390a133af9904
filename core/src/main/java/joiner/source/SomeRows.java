package joiner.source;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import joiner.model.FieldId;
import joiner.rows.Rows;
import joiner.rows.TableSink;

/** Takes the rows that are wanted, and ends the reading after the last. */
final class SomeRows implements TableSink {
  private final Rows.Builder builder;
  private final List<Integer> numbers = new ArrayList<>();
  private final int first;
  private final Set<Integer> others;
  private final int last;
  private int row = 1;

  SomeRows(List<FieldId> fields, int first, Set<Integer> others) {
    this.builder = new Rows.Builder(fields);
    this.first = first;
    this.others = others;
    this.last = Math.max(first, others.stream().mapToInt(Integer::intValue).max().orElse(0));
  }

  private boolean isWanted() {
    return row <= first || others.contains(row);
  }

  @Override
  public int column(String header) {
    return builder.column(header);
  }

  @Override
  public void cell(int column, String text) {
    if (isWanted()) {
      builder.cell(column, text);
    }
  }

  @Override
  public void cell(int column, char[] chars, int offset, int length) {
    if (isWanted()) {
      builder.cell(column, new String(chars, offset, length));
    }
  }

  @Override
  public void endRow(long line) {
    if (isWanted()) {
      numbers.add(row);
      builder.endRow(line);
    }
    if (++row > last) {
      throw new Enough();
    }
  }

  LinkedFile.Examples examples() {
    return new LinkedFile.Examples(builder.build(), numbers);
  }

  /** Nothing more is wanted. */
  static final class Enough extends RuntimeException {
    private static final long serialVersionUID = 1L;

    Enough() {
      super("", null, false, false);
    }
  }
}
