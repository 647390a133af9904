package joiner.source;

import java.util.HashMap;
import java.util.Map;
import joiner.discovery.ColumnProfile;
import joiner.rows.LinkedRows;
import joiner.rows.TableSink;
import joiner.rows.ValueForm;
import org.jspecify.annotations.Nullable;

/** Texts of a column as the values they stand for. */
final class ColumnReading {
  /** So many different texts that needed work are remembered. */
  private static final int KNOWN = 10_000;

  private final LinkedRows.Column column;
  private final int place;

  /** Another field that the same column fills. */
  private final @Nullable ColumnReading other;

  private final boolean asTheyAre;
  private final boolean digitsAsTheyAre;
  private final Map<String, String> known = new HashMap<>();

  ColumnReading(LinkedRows.Column column, int place, @Nullable ColumnReading other) {
    this.column = column;
    this.place = place;
    this.other = other;
    boolean same = column.replaced().isEmpty();
    this.asTheyAre = same && column.form() == ValueForm.TEXT;
    this.digitsAsTheyAre = same && column.form() == ValueForm.WHOLE;
  }

  /** The next of the fields that the same column fills. */
  @Nullable ColumnReading other() {
    return other;
  }

  /** Hands a text on as the value it stands for. */
  void put(TableSink sink, char[] chars, int offset, int length) {
    if (asTheyAre || (digitsAsTheyAre && isDigits(chars, offset, length))) {
      sink.cell(place, chars, offset, length);
      return;
    }
    String text = new String(chars, offset, length);
    String value = known.get(text);
    if (value == null) {
      value = ColumnProfile.canonical(text, column.form());
      value = column.replaced().getOrDefault(value, value);
      if (known.size() < KNOWN) {
        known.put(text, value);
      }
    }
    if (!value.isEmpty()) {
      sink.cell(place, value);
    }
  }

  /** Such a whole number is written as Joiner writes it. */
  private static boolean isDigits(char[] chars, int offset, int length) {
    for (int i = offset; i < offset + length; i++) {
      if (chars[i] < '0' || chars[i] > '9') {
        return false;
      }
    }
    return true;
  }
}
