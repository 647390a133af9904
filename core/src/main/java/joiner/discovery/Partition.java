package joiner.discovery;

import java.util.Arrays;

/**
 * The rows that agree in some columns, in groups of two and more; rows that agree with no other are
 * left out (a stripped partition: Ykä Huhtala, Juha Kärkkäinen, Pasi Porkka, Hannu Toivonen, "TANE:
 * An efficient algorithm for discovering functional and approximate dependencies", 1999).
 */
final class Partition {
  private final int[] rows;

  /** Where each group begins in {@link #rows}; one more than there are groups. */
  private final int[] starts;

  private Partition(int[] rows, int[] starts) {
    this.rows = rows;
    this.starts = starts;
  }

  /** All rows in one group. */
  static Partition whole(int count) {
    int[] rows = new int[count];
    for (int i = 0; i < count; i++) {
      rows[i] = i;
    }
    return count < 2
        ? new Partition(new int[0], new int[1])
        : new Partition(rows, new int[] {0, count});
  }

  /** How many groups there are. */
  int groups() {
    return starts.length - 1;
  }

  /** How many rows are in groups. */
  int size() {
    return rows.length;
  }

  int start(int group) {
    return starts[group];
  }

  int end(int group) {
    return starts[group + 1];
  }

  /** The row at a place, as {@link #start} and {@link #end} count them. */
  int row(int place) {
    return rows[place];
  }

  /**
   * The groups divided further by a column; linear in the rows of the groups.
   *
   * @param counts scratch, all zero, at least as long as the column has codes; left all zero
   */
  Partition refine(int[] codes, int[] counts) {
    var refining = new Refining(codes, counts);
    for (int group = 0; group < groups(); group++) {
      refining.divide(starts[group], starts[group + 1]);
    }
    return refining.done();
  }

  /** One refinement underway: each group is counted, given room, and moved there. */
  private final class Refining {
    private final int[] codes;
    private final int[] counts;
    private final int[] refined = new int[rows.length];
    private final int[] begins = new int[rows.length / 2 + 1];

    /** Codes that the group at hand has, in order of first use. */
    private int[] touched = new int[16];

    private int filled;
    private int made;

    Refining(int[] codes, int[] counts) {
      this.codes = codes;
      this.counts = counts;
    }

    void divide(int from, int to) {
      int seen = count(from, to);
      int next = giveRoom(seen);
      for (int at = from; at < to; at++) {
        int code = codes[rows[at]];
        if (code >= 0 && counts[code] >= 0) {
          refined[counts[code]++] = rows[at];
        }
      }
      for (int i = 0; i < seen; i++) {
        counts[touched[i]] = 0;
      }
      filled = next;
    }

    private int count(int from, int to) {
      int seen = 0;
      for (int at = from; at < to; at++) {
        int code = codes[rows[at]];
        if (code >= 0 && counts[code]++ == 0) {
          if (seen == touched.length) {
            touched = Arrays.copyOf(touched, 2 * seen);
          }
          touched[seen++] = code;
        }
      }
      return seen;
    }

    /** Turns counts into places; a code of one row alone makes no group and gets −1. */
    private int giveRoom(int seen) {
      int next = filled;
      for (int i = 0; i < seen; i++) {
        int size = counts[touched[i]];
        if (size > 1) {
          begins[made++] = next;
          counts[touched[i]] = next;
          next += size;
        } else {
          counts[touched[i]] = -1;
        }
      }
      return next;
    }

    Partition done() {
      begins[made] = filled;
      return new Partition(Arrays.copyOf(refined, filled), Arrays.copyOf(begins, made + 1));
    }
  }
}
