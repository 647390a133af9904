package joiner.ddl;

import java.util.OptionalLong;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/** How far a counter has counted. */
final class Counted {
  private Counted() {}

  /** The number after the greatest one of some rows; empty where no row has one above 0. */
  static OptionalLong next(Rows rows, Field counter) {
    long highest = 0;
    for (int row = 0; row < rows.count(); row++) {
      if (ValueReader.valueOrNull(rows.cell(row, counter.id()), counter.type())
          instanceof Value.Num number) {
        highest = Math.max(highest, number.number().longValue());
      }
    }
    return highest > 0 && highest < Long.MAX_VALUE
        ? OptionalLong.of(highest + 1)
        : OptionalLong.empty();
  }
}
