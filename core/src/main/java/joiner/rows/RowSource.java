package joiner.rows;

import java.io.IOException;
import java.util.List;
import java.util.OptionalLong;

/**
 * The rows of one table, wherever they are: gone through from the first to the last, as often as
 * wanted, without anybody having to hold them.
 */
public interface RowSource {
  /** Names of the columns, in the order in which they are announced. */
  List<String> headers();

  /** How many rows there are, where that is known without going through them. */
  default OptionalLong count() {
    return OptionalLong.empty();
  }

  /**
   * Goes through all rows once: announces every column, then each row with its cells that are not
   * NULL.
   *
   * @throws IOException if the rows cannot be read to their end; what the sink has got by then are
   *     the rows before
   */
  void scan(TableSink sink) throws IOException;
}
