package joiner.engine;

import java.util.List;
import java.util.stream.Stream;
import joiner.catalog.SqlType;

/**
 * Room in SQLite ("Database File Format", sections 1.6 and 2.1): a row is a record with a byte that
 * tells the type of each value, the smallest number of bytes for a number, and its row number
 * before it; a whole number that is the key is that number.
 */
final class SqliteStorage implements Storage {
  /** Rows that come in the order of their numbers fill their pages; those of indexes less so. */
  private static final double FILLED = 0.98;

  private static final double INDEX_FILLED = 0.75;

  /** Where the row begins in its page, how long it is, and its number. */
  private static final double CELL = 2 + 1 + 3;

  @Override
  public double row(List<Stored> columns, List<Integer> key) {
    double data = 1 + columns.size();
    for (int i = 0; i < columns.size(); i++) {
      boolean number = isRowNumber(columns, key) && key.contains(i);
      data += number ? 0 : value(columns.get(i));
    }
    return (CELL + data) / FILLED;
  }

  @Override
  public double entry(List<Stored> columns, List<Integer> indexed, List<Integer> key) {
    if (indexed.equals(key) && isRowNumber(columns, key)) {
      return 0;
    }
    double data = 1 + indexed.size() + 1 + 3; // The row's number at the end.
    data += indexed.stream().mapToDouble(place -> value(columns.get(place))).sum();
    return (3 + data) / INDEX_FILLED;
  }

  private static boolean isRowNumber(List<Stored> columns, List<Integer> key) {
    return key.size() == 1 && columns.get(key.getFirst()).type() instanceof SqlType.Whole;
  }

  private static double value(Stored column) {
    double size =
        switch (column.type()) {
          case SqlType.Whole whole -> number(column.bytes());
          case SqlType.TrueFalse t -> 0;
          case SqlType.Decimal(int precision, int scale) -> scale == 0 ? number(column.bytes()) : 8;
          case SqlType.AnyNumber any -> 8;
          case SqlType.Date t -> 10;
          case SqlType.Time t -> 8;
          case SqlType.Timestamp t -> Math.max(19, column.bytes());
          case SqlType.Uuid t -> 36;
          case SqlType.Varchar text -> text(column.bytes());
          case SqlType.LongText text -> text(column.bytes());
          case SqlType.Bytes bytes -> text(column.bytes());
          case SqlType.Other other -> text(column.bytes());
        };
    return size * column.filled();
  }

  /** A longer text needs a second byte to tell its length. */
  private static double text(double bytes) {
    return bytes + (bytes > 57 ? 1 : 0);
  }

  /** As many bytes as a number of so many digits needs. */
  private static double number(double digits) {
    return Stream.of(1, 2, 3, 4, 6, 8)
        .filter(bytes -> digits <= (bytes * 8 - 1) * Math.log10(2))
        .findFirst()
        .orElse(8);
  }
}
