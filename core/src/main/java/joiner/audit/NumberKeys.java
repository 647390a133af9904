package joiner.audit;

import java.util.Arrays;

/**
 * Whole 64-bit keys, each with the row it was put from first: open addressing with linear probing
 * (Knuth, The Art of Computer Programming, volume 3, section 6.4), at most two thirds full.
 */
final class NumberKeys {
  /** The key was not there. */
  static final int NEW = -1;

  private static final int SMALLEST = 1 << 10;

  /** A prime near 2⁶⁴ divided by the golden ratio (Knuth, the same section). */
  private static final long GOLDEN = 0x9E3779B97F4A7C15L;

  private long[] keys = new long[SMALLEST];

  /** The row of each key, plus one; 0 where there is none. */
  private int[] rows = new int[SMALLEST];

  private int size;

  /** How much memory a further key may take now. */
  long growth() {
    return 3L * (size + 1) > 2L * keys.length ? 24L * keys.length : 0;
  }

  /** Puts a key in; the row that put it in before, or {@link #NEW}. */
  int put(long key, int row) {
    if (3L * (size + 1) > 2L * keys.length) {
      grow();
    }
    int at = find(key);
    if (rows[at] != 0) {
      return rows[at] - 1;
    }
    keys[at] = key;
    rows[at] = row + 1;
    size++;
    return NEW;
  }

  boolean has(long key) {
    return rows[find(key)] != 0;
  }

  /** Where a key is, or would be. */
  private int find(long key) {
    int mask = keys.length - 1;
    long mixed = key * GOLDEN;
    int at = (int) (mixed >>> 32 ^ mixed >>> 20) & mask;
    while (rows[at] != 0 && keys[at] != key) {
      at = at + 1 & mask;
    }
    return at;
  }

  private void grow() {
    long[] oldKeys = keys;
    int[] oldRows = rows;
    keys = new long[2 * oldKeys.length];
    rows = new int[2 * oldRows.length];
    for (int i = 0; i < oldKeys.length; i++) {
      if (oldRows[i] != 0) {
        int at = find(oldKeys[i]);
        keys[at] = oldKeys[i];
        rows[at] = oldRows[i];
      }
    }
  }

  /** Takes a key with the row that put it in. */
  interface Each {
    void key(long key, int row);
  }

  /** Shows all keys, in the order of their rows. */
  void forEach(Each each) {
    long[] byRow = new long[size];
    int filled = 0;
    for (int i = 0; i < keys.length; i++) {
      if (rows[i] != 0) {
        byRow[filled++] = (long) rows[i] << 32 | i;
      }
    }
    Arrays.sort(byRow);
    for (long entry : byRow) {
      each.key(keys[(int) entry], (int) (entry >>> 32) - 1);
    }
  }

  /** How much memory it takes. */
  long bytes() {
    return 12L * keys.length;
  }

  int size() {
    return size;
  }
}
