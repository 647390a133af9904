package joiner.audit;

import java.util.Arrays;

/**
 * Whole 64-bit keys, each with the row it was put from first. Keys that lie close together, as
 * counters do, have their rows in one array by their value; the others are in a table with open
 * addressing and linear probing, at most two thirds full (Knuth, The Art of Computer Programming,
 * volume 3, section 6.4). A key is in one of the two only: in the array if it lies in its range.
 */
final class NumberKeys {
  /** The key was not there. */
  static final int NEW = -1;

  private static final int SMALLEST = 1 << 6;

  /** The array may have so many places for each key. */
  private static final int SPARSEST = 6;

  /** No array is longer. */
  private static final int LONGEST = 1 << 30;

  /** 2⁶⁴ divided by the golden ratio; multiplying by it scatters keys (Knuth, the same section). */
  private static final long GOLDEN = 0x9E3779B97F4A7C15L;

  /** The row of each key in the range, plus one; 0 where there is none. */
  private int[] byValue = new int[0];

  /** Beside it a bit for each key: small enough to stay near the processor while it is asked. */
  private long[] close = new long[0];

  private long base;
  private int closeSize;

  /** Two places for each: a key, and its row plus one; 0 where there is none. */
  private long[] table = new long[2 * SMALLEST];

  private int bits = Integer.numberOfTrailingZeros(SMALLEST);
  private int tableSize;
  private long least = Long.MAX_VALUE;
  private long greatest = Long.MIN_VALUE;

  /** How much memory a further key may take at most, beside what there is. */
  long growth(long key) {
    if (isClose(key)) {
      return 0;
    }
    long more = 3L * (tableSize + 1) > 2L << bits ? 32L << bits : 0;
    return more + (mayBeClose(key) ? 5 * length(key) : 0);
  }

  /** Puts a key in; the row that put it in before, or {@link #NEW}. */
  int put(long key, int row) {
    least = Math.min(least, key);
    greatest = Math.max(greatest, key);
    if (!isClose(key) && mayBeClose(key)) {
      widen(length(key));
    }
    if (isClose(key)) {
      int at = (int) (key - base);
      if (byValue[at] != 0) {
        return byValue[at] - 1;
      }
      byValue[at] = row + 1;
      close[at >> 6] |= 1L << at;
      closeSize++;
      return NEW;
    }
    return putInTable(key, row);
  }

  private int putInTable(long key, int row) {
    if (3L * (tableSize + 1) > 2L << bits) {
      grow();
    }
    int at = find(key);
    if (table[at + 1] != 0) {
      return (int) table[at + 1] - 1;
    }
    table[at] = key;
    table[at + 1] = row + 1L;
    tableSize++;
    return NEW;
  }

  boolean has(long key) {
    long at = key - base;
    return isClose(key)
        ? (close[(int) (at >> 6)] & 1L << at) != 0
        : tableSize > 0 && table[find(key) + 1] != 0;
  }

  private boolean isClose(long key) {
    long at = key - base;
    return at >= 0 && at < byValue.length && key >= base;
  }

  /** Whether all keys and this one lie so close that the array pays. */
  private boolean mayBeClose(long key) {
    long low = Math.min(least, key);
    long high = Math.max(greatest, key);
    long span = high - low + 1;
    return span > 0 && span <= (long) SPARSEST * (size() + SMALLEST) && span < LONGEST / 2;
  }

  /** How long the array is to be with that key: with room for as many further ones on. */
  private long length(long key) {
    long span = Math.max(greatest, key) - Math.min(least, key) + 1;
    return Math.min(LONGEST, span + span / 2 + SMALLEST);
  }

  /** Makes the array hold all keys there are. */
  private void widen(long length) {
    int[] wider = new int[(int) length];
    if (closeSize > 0) {
      System.arraycopy(byValue, 0, wider, (int) (base - least), byValue.length);
    }
    byValue = wider;
    base = least;
    if (tableSize > 0) {
      for (int at = 0; at < table.length; at += 2) {
        if (table[at + 1] != 0) {
          byValue[(int) (table[at] - base)] = (int) table[at + 1];
        }
      }
      closeSize += tableSize;
      tableSize = 0;
      bits = Integer.numberOfTrailingZeros(SMALLEST);
      table = new long[2 * SMALLEST];
    }
    close = new long[(byValue.length >> 6) + 1];
    for (int at = 0; at < byValue.length; at++) {
      if (byValue[at] != 0) {
        close[at >> 6] |= 1L << at;
      }
    }
  }

  /** Where a key is in the table, or would be. */
  private int find(long key) {
    int mask = (1 << bits) - 1;
    int slot = (int) (key * GOLDEN >>> 64 - bits);
    while (table[2 * slot + 1] != 0 && table[2 * slot] != key) {
      slot = slot + 1 & mask;
    }
    return 2 * slot;
  }

  private void grow() {
    long[] old = table;
    bits++;
    table = new long[2 << bits];
    for (int i = 0; i < old.length; i += 2) {
      if (old[i + 1] != 0) {
        int at = find(old[i]);
        table[at] = old[i];
        table[at + 1] = old[i + 1];
      }
    }
  }

  /** Takes a key with the row that put it in. */
  interface Each {
    void key(long key, int row);
  }

  /** Shows all keys, in the order of their rows. */
  void forEach(Each each) {
    long[] byRow = new long[size()];
    int filled = 0;
    for (int i = 0; i < byValue.length; i++) {
      if (byValue[i] != 0) {
        byRow[filled++] = (long) byValue[i] << 32 | i;
      }
    }
    int inArray = filled;
    for (int at = 0; at < table.length; at += 2) {
      if (table[at + 1] != 0) {
        byRow[filled++] = table[at + 1] << 32 | at;
      }
    }
    Arrays.sort(byRow, 0, inArray);
    Arrays.sort(byRow, inArray, filled);
    int one = 0;
    int other = inArray;
    while (one < inArray || other < filled) {
      boolean isClose =
          other == filled || (one < inArray && byRow[one] >>> 32 < byRow[other] >>> 32);
      long entry = isClose ? byRow[one++] : byRow[other++];
      int at = (int) entry;
      each.key(isClose ? base + at : table[at], (int) (entry >>> 32) - 1);
    }
  }

  /** How much memory it takes. */
  long bytes() {
    return 4L * byValue.length + 8L * close.length + 8L * table.length;
  }

  int size() {
    return closeSize + tableSize;
  }
}
