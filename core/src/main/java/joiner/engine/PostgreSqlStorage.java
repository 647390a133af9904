package joiner.engine;

import java.util.List;
import joiner.catalog.SqlType;

/**
 * Room in PostgreSQL (its documentation, "Database Page Layout", "Data Types" and "B-Tree
 * Indexes"): pages of 8 kB, a header of 23 bytes and a pointer of 4 for each row, values aligned.
 */
final class PostgreSqlStorage implements Storage {
  private static final double PAGE = 8192;
  private static final double PAGE_HEADER = 24;
  private static final double POINTER = 4;

  /** An index is filled so far when it is made, and somewhat less where rows come one by one. */
  private static final double INDEX_FILLED = 0.8;

  @Override
  public double row(List<Stored> columns, List<Integer> key) {
    boolean anyEmpty = columns.stream().anyMatch(column -> column.filled() < 1);
    double header = aligned(23 + (anyEmpty ? (columns.size() + 7) / 8 : 0), 8);
    double row = aligned(header + data(columns), 8) + POINTER;
    double each = Math.max(1, Math.floor((PAGE - PAGE_HEADER) / row));
    return Math.max(row, PAGE / each);
  }

  @Override
  public double entry(List<Stored> columns, List<Integer> indexed, List<Integer> key) {
    double data = aligned(data(indexed.stream().map(columns::get).toList()), 8);
    return (8 + data + POINTER) / INDEX_FILLED;
  }

  /** All values one behind the other, each where it may begin. */
  private static double data(List<Stored> columns) {
    double at = 0;
    for (Stored column : columns) {
      double size = size(column);
      double from = column.filled() < 1 ? at : aligned(at, alignment(column));
      at = from + size * column.filled();
    }
    return at;
  }

  private static double aligned(double at, double by) {
    return Math.ceil(at / by) * by;
  }

  private static double size(Stored column) {
    return switch (column.type()) {
      case SqlType.Whole whole -> whole.width().bits() / 8.0;
      case SqlType.TrueFalse t -> 1;
      case SqlType.Date t -> 4;
      case SqlType.Time t -> 8;
      case SqlType.Timestamp t -> 8;
      case SqlType.Uuid t -> 16;
      case SqlType.Decimal decimal -> numeric(column.bytes());
      case SqlType.AnyNumber any -> numeric(column.bytes());
      case SqlType.Varchar text -> text(column.bytes());
      case SqlType.LongText text -> text(column.bytes());
      case SqlType.Bytes bytes -> text(column.bytes());
      case SqlType.Other other -> text(column.bytes());
    };
  }

  /** Four digits in two bytes, before the point and behind it. */
  private static double numeric(double digits) {
    return 3 + 2 * Math.ceil((digits + 1) / 4);
  }

  private static double text(double bytes) {
    return bytes < 127 ? bytes + 1 : bytes + 4;
  }

  private static double alignment(Stored column) {
    return switch (column.type()) {
      case SqlType.Whole whole -> whole.width().bits() / 8.0;
      case SqlType.Date t -> 4;
      case SqlType.Time t -> 8;
      case SqlType.Timestamp t -> 8;
      case SqlType.Varchar t when column.bytes() >= 127 -> 4;
      default -> 1;
    };
  }
}
