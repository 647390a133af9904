package joiner.audit;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import joiner.rows.TableSink;

/** Gathers the columns of a table that are wanted in batches, as its rows go by. */
final class Batches implements TableSink {
  private static final int UNWANTED = -1;

  private final Map<String, Integer> wanted = new HashMap<>();
  private final UnaryOperator<CellBatch> full;
  private int[] places = new int[16];
  private int announced;
  private CellBatch batch;

  /**
   * Gathers columns.
   *
   * @param names of the columns, in their order in a batch
   * @param full takes a batch that is full, and gives an empty one
   */
  Batches(List<String> names, CellBatch first, UnaryOperator<CellBatch> full) {
    this.full = full;
    this.batch = first;
    for (int i = 0; i < names.size(); i++) {
      wanted.put(names.get(i), i);
    }
    batch.restart(0);
  }

  @Override
  public int column(String header) {
    if (announced == places.length) {
      places = Arrays.copyOf(places, 2 * announced);
    }
    places[announced] = wanted.getOrDefault(header, UNWANTED);
    return announced++;
  }

  @Override
  public void cell(int column, String text) {
    if (places[column] != UNWANTED) {
      batch.cell(places[column], text);
    }
  }

  @Override
  public void cell(int column, char[] chars, int offset, int length) {
    if (places[column] != UNWANTED) {
      batch.cell(places[column], chars, offset, length);
    }
  }

  @Override
  public void endRow(long line) {
    batch.endRow();
    if (batch.isFull()) {
      int next = batch.first() + batch.rows();
      batch = full.apply(batch);
      batch.restart(next);
    }
  }

  /** The last batch, which may have no rows. */
  CellBatch last() {
    return batch;
  }
}
