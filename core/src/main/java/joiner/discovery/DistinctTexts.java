package joiner.discovery;

import java.util.Arrays;

/**
 * The different texts of a column, by 64-bit hashes, each with a small number that goes with it.
 * Two texts share a hash with a probability below 10⁻⁶ for the millions it keeps. Beyond that many
 * it counts by estimate (Philippe Flajolet, Éric Fusy, Olivier Gandouet, Frédéric Meunier,
 * "HyperLogLog", 2007; standard error 0.8 %), so that memory stays bounded.
 */
final class DistinctTexts {
  private static final int REGISTERS = 1 << 14;

  private final int most;
  private long[] hashes = new long[64];
  private byte[] marks = new byte[64];
  private int size;
  private byte @org.jspecify.annotations.Nullable [] registers;

  /** Keeps up to that many. */
  DistinctTexts(int most) {
    this.most = most;
  }

  /** The hash of a text, never 0: multiply and shift over its characters, mixed at the end. */
  static long hash(char[] chars, int offset, int length) {
    long hash = 0x9E3779B97F4A7C15L + length;
    for (int i = offset; i < offset + length; i++) {
      hash = (hash ^ chars[i]) * 0xFF51AFD7ED558CCDL;
      hash ^= hash >>> 32;
    }
    hash *= 0xC4CEB9FE1A85EC53L;
    hash ^= hash >>> 29;
    return hash == 0 ? 1 : hash;
  }

  /** The number that goes with a hash, or −1 if it is new or no longer kept. */
  int markOf(long hash) {
    for (int at = (int) hash & (hashes.length - 1);
        hashes[at] != 0;
        at = at + 1 & hashes.length - 1) {
      if (hashes[at] == hash) {
        return marks[at] & 0xFF;
      }
    }
    return -1;
  }

  /** Adds a hash that is new, with its number, 0 to 255. */
  void add(long hash, int mark) {
    if (size >= most) {
      estimate(hash);
      return;
    }
    if (size * 2 >= hashes.length) {
      grow();
    }
    put(hash, (byte) mark);
    size++;
  }

  private void put(long hash, byte mark) {
    int at = (int) hash & (hashes.length - 1);
    while (hashes[at] != 0) {
      at = at + 1 & hashes.length - 1;
    }
    hashes[at] = hash;
    marks[at] = mark;
  }

  private void grow() {
    long[] old = hashes;
    byte[] oldMarks = marks;
    hashes = new long[old.length * 2];
    marks = new byte[old.length * 2];
    for (int i = 0; i < old.length; i++) {
      if (old[i] != 0) {
        put(old[i], oldMarks[i]);
      }
    }
  }

  private void estimate(long hash) {
    if (registers == null) {
      registers = new byte[REGISTERS];
      Arrays.stream(hashes).filter(kept -> kept != 0).forEach(this::register);
    }
    register(hash);
  }

  private void register(long hash) {
    int register = (int) (hash >>> 50);
    byte rank = (byte) (Long.numberOfLeadingZeros(hash << 14 | 1L << 13) + 1);
    byte[] all = java.util.Objects.requireNonNull(registers);
    all[register] = (byte) Math.max(all[register], rank);
  }

  /** Whether the count is exact. */
  boolean exact() {
    return registers == null;
  }

  /** How many there are. */
  long count() {
    if (registers == null) {
      return size;
    }
    double sum = 0;
    for (byte register : registers) {
      sum += Math.scalb(1.0, -register);
    }
    double alpha = 0.7213 / (1 + 1.079 / REGISTERS);
    return Math.max(size, Math.round(alpha * REGISTERS * REGISTERS / sum));
  }
}
