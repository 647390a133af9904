package joiner.discovery;

import java.util.Arrays;

/** A growing list of sets of columns, as bits packed into words; sets are known by their number. */
final class ColumnSets {
  private final int words;
  private long[] bits;
  private int size;

  ColumnSets(int columns) {
    this.words = Math.max(1, (columns + 63) >> 6);
    this.bits = new long[words * 64];
  }

  int words() {
    return words;
  }

  /** Adds a copy of a set and gives its number. */
  int add(long[] set) {
    if ((size + 1) * words > bits.length) {
      bits = Arrays.copyOf(bits, bits.length * 2);
    }
    System.arraycopy(set, 0, bits, size * words, words);
    return size++;
  }

  boolean contains(int set, int column) {
    return (bits[set * words + (column >> 6)] >>> column & 1) != 0;
  }

  void copy(int set, long[] into) {
    System.arraycopy(bits, set * words, into, 0, words);
  }

  /** How many columns a set shares with another. */
  int shared(int set, long[] other) {
    int count = 0;
    for (int word = 0; word < words; word++) {
      count += Long.bitCount(bits[set * words + word] & other[word]);
    }
    return count;
  }
}
