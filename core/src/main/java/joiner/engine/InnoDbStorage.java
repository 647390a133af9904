package joiner.engine;

import java.util.List;
import java.util.stream.Stream;
import joiner.catalog.SqlType;

/**
 * Room in MariaDB with InnoDB (its knowledge base, "InnoDB DYNAMIC Row Format" and "Data Type
 * Storage Requirements"): rows stand in the index of their key, 18 bytes before each, pages of 16
 * kB that are filled to fifteen sixteenths.
 */
final class InnoDbStorage implements Storage {
  private static final double FILLED = 15.0 / 16;
  private static final double RECORD_HEADER = 5;

  /** Who wrote it last, and where the row before is. */
  private static final double VERSION = 13;

  /** A number of its own, where a table has no key. */
  private static final double HIDDEN_KEY = 6;

  @Override
  public double row(List<Stored> columns, List<Integer> key) {
    double own = key.isEmpty() ? HIDDEN_KEY : 0;
    return (RECORD_HEADER + VERSION + own + data(columns)) / FILLED;
  }

  /** An entry of an index leads on by the primary key. */
  @Override
  public double entry(List<Stored> columns, List<Integer> indexed, List<Integer> key) {
    if (indexed.equals(key)) {
      return 0; // The rows stand in it.
    }
    List<Stored> all =
        Stream.concat(indexed.stream(), key.stream()).distinct().map(columns::get).toList();
    double own = key.isEmpty() ? HIDDEN_KEY : 0;
    return (RECORD_HEADER + own + data(all)) / FILLED;
  }

  private static double data(List<Stored> columns) {
    long mayBeEmpty = columns.stream().filter(column -> column.filled() < 1).count();
    double data = Math.ceil(mayBeEmpty / 8.0);
    for (Stored column : columns) {
      data += size(column) * column.filled();
    }
    return data;
  }

  private static double size(Stored column) {
    return switch (column.type()) {
      case SqlType.Whole whole -> whole.width().bits() / 8.0;
      case SqlType.TrueFalse t -> 1;
      case SqlType.Date t -> 3;
      case SqlType.Time t -> 6;
      case SqlType.Timestamp t -> 8;
      case SqlType.Uuid t -> 16;
      case SqlType.Decimal(int precision, int scale) -> packed(precision - scale) + packed(scale);
      case SqlType.AnyNumber any -> packed(35) + packed(30);
      case SqlType.Varchar text -> column.bytes() + (text.length() * 4 > 255 ? 2 : 1);
      case SqlType.LongText text -> column.bytes() + 2;
      case SqlType.Bytes bytes -> column.bytes() + 4;
      case SqlType.Other other -> column.bytes() + 2;
    };
  }

  /** Nine digits in four bytes; fewer in as many as they need. */
  private static double packed(int digits) {
    int rest = digits % 9;
    return digits / 9 * 4 + (rest + 1) / 2;
  }
}
