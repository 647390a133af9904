package joiner.audit;

import java.util.Arrays;

/**
 * Keys of the rows of a batch that are asked for together. Each lies somewhere else in memory,
 * which is slow to reach; asked together the processor reaches for many of them at once.
 */
final class AskedKeys {
  private int[] rows = new int[0];
  private int[] ends = new int[1];
  private byte[] bytes = new byte[0];
  private int count;

  void clear() {
    count = 0;
  }

  /** Adds the key of a row in the batch. */
  void add(KeyForm key, int row) {
    int from = ends[count];
    int to = from + key.length();
    if (to > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(to, 2 * bytes.length));
    }
    if (count == rows.length) {
      rows = Arrays.copyOf(rows, 2 * count + 16);
      ends = Arrays.copyOf(ends, 2 * count + 17);
    }
    System.arraycopy(key.bytes(), 0, bytes, from, key.length());
    rows[count++] = row;
    ends[count] = to;
  }

  int count() {
    return count;
  }

  int row(int i) {
    return rows[i];
  }

  byte[] bytes() {
    return bytes;
  }

  int from(int i) {
    return ends[i];
  }

  int length(int i) {
    return ends[i + 1] - ends[i];
  }
}
