package joiner.discovery;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.SequencedMap;
import java.util.stream.IntStream;

/** Counts the different texts of a column, by hash, as long as there are few of them. */
final class FrequentTexts {
  private static final int MOST = 256;
  private static final int SLOTS = 1024;

  private final long[] hashes = new long[SLOTS];
  private final long[] counts = new long[SLOTS];
  private final String[] texts = new String[SLOTS];
  private int size;

  /** Counts a text that was seen before. */
  void count(long hash) {
    if (size <= MOST) {
      counts[slot(hash)]++;
    }
  }

  /** Counts a text that is new. */
  void add(long hash, String text) {
    if (size <= MOST && ++size <= MOST) {
      int slot = slot(hash);
      hashes[slot] = hash;
      texts[slot] = text;
      counts[slot] = 1;
    }
  }

  private int slot(long hash) {
    int slot = (int) hash & SLOTS - 1;
    while (hashes[slot] != 0 && hashes[slot] != hash) {
      slot = slot + 1 & SLOTS - 1;
    }
    return slot;
  }

  /** The texts with their counts, most frequent first; none if there were too many. */
  SequencedMap<String, Long> all() {
    SequencedMap<String, Long> all = new LinkedHashMap<>();
    if (size <= MOST) {
      IntStream.range(0, SLOTS)
          .filter(slot -> hashes[slot] != 0)
          .boxed()
          .sorted(
              Comparator.comparingLong((Integer slot) -> -counts[slot])
                  .thenComparing(slot -> texts[slot]))
          .forEach(slot -> all.put(texts[slot], counts[slot]));
    }
    return all;
  }
}
