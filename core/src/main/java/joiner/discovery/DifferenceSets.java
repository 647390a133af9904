package joiner.discovery;

import java.nio.LongBuffer;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * The sets of columns in which pairs of rows differ, as far as they have been looked at. A set of
 * columns is a key exactly if it meets every difference set, and determines a column exactly if it
 * meets every difference set with that column in it.
 */
final class DifferenceSets {
  /** Pairs compared at the beginning, for each column. */
  private static final int SAMPLE = 20_000;

  private final Relation relation;
  private final int words;
  private final Set<LongBuffer> known = new HashSet<>();

  DifferenceSets(Relation relation) {
    this.relation = relation;
    this.words = new ColumnSets(relation.columns()).words();
  }

  /**
   * Compares neighbours among the rows that agree in a column: such pairs differ in few columns and
   * so rule out much. A sample only steers the search; it never decides.
   */
  void sample(List<Partition> singles) {
    for (Partition partition : singles) {
      int step = Math.max(1, partition.size() / SAMPLE);
      long[] set = new long[words];
      for (int group = 0; group < partition.groups(); group++) {
        for (int at = partition.start(group); at + 1 < partition.end(group); at += step) {
          relation.difference(partition.row(at), partition.row(at + 1), set);
          add(set);
        }
      }
    }
  }

  /** Remembers a set; it may be overwritten afterwards. */
  synchronized void add(long[] set) {
    if (!known.contains(LongBuffer.wrap(set))) {
      known.add(LongBuffer.wrap(set.clone()));
    }
  }

  /** Up to {@code most} of the smallest known sets that hold the target, without it. */
  List<long[]> holding(int target, int most) {
    var holding = new ArrayList<long[]>();
    for (LongBuffer set : snapshot()) {
      long[] bits = set.array();
      if (target < 0 || (bits[target >> 6] >>> target & 1) != 0) {
        long[] rest = bits.clone();
        if (target >= 0) {
          rest[target >> 6] &= ~(1L << target);
        }
        holding.add(rest);
      }
    }
    return smallest(holding, most);
  }

  private synchronized List<LongBuffer> snapshot() {
    return List.copyOf(known);
  }

  /** The sets of which no other is a part, smallest first, at most so many. */
  static List<long[]> smallest(List<long[]> sets, int most) {
    var sorted = new ArrayList<>(sets);
    sorted.sort(
        java.util.Comparator.comparingInt(DifferenceSets::size)
            .thenComparing(java.util.Arrays::compare));
    var kept = new ArrayList<long[]>();
    for (long[] set : sorted) {
      if (kept.size() == most) {
        break;
      }
      if (kept.stream().noneMatch(part -> within(part, set))) {
        kept.add(set);
      }
    }
    return kept;
  }

  private static int size(long[] set) {
    int size = 0;
    for (long word : set) {
      size += Long.bitCount(word);
    }
    return size;
  }

  private static boolean within(long[] part, long[] whole) {
    for (int word = 0; word < part.length; word++) {
      if ((part[word] & ~whole[word]) != 0) {
        return false;
      }
    }
    return true;
  }
}
