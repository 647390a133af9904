package joiner.audit;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntConsumer;

/**
 * Keys of any length, each with the row it was put from first: a table of hashes that lead to the
 * bytes, which are compared, so that two keys of one hash stay two. Open addressing with linear
 * probing, at most two thirds full.
 */
final class ByteKeys {
  private static final VarHandle INTS =
      MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);
  private static final VarHandle LONGS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  private static final int PAGE = 1 << 20;
  private static final int FIRST_PAGE = 1 << 10;
  private static final int SMALLEST = 1 << 6;

  /** Before the bytes of a key stand its row and its length. */
  private static final int HEAD = 8;

  private final List<byte[]> pages = new ArrayList<>();

  /**
   * For each key its hash, and below that where it is in the pages, in fours of bytes, plus one; 0
   * where there is none. Both lie side by side, for memory is the slow part.
   */
  private long[] slots = new long[SMALLEST];

  private int[] hashes = new int[0];
  private long[] probes = new long[0];

  /** What was reached for; it is kept so that the reaching is not left out. */
  private int touched;

  private int size;
  private int free;

  /** The hash of a key; its upper bits are as good as its lower ones. */
  static int hash(byte[] key, int length) {
    return hash(key, 0, length);
  }

  private static int hash(byte[] key, int from, int length) {
    long hash = length * 0x9E3779B97F4A7C15L;
    int at = from;
    int end = from + length;
    for (; at + 8 <= end; at += 8) {
      hash = (hash ^ (long) LONGS.get(key, at)) * 0x9FB21C651E98DF25L;
      hash ^= hash >>> 32;
    }
    for (; at < end; at++) {
      hash = (hash ^ key[at] & 0xFF) * 0x9FB21C651E98DF25L;
    }
    hash ^= hash >>> 29;
    return (int) (hash ^ hash >>> 32);
  }

  /** How much memory a further key of that length may take now. */
  long growth(int length) {
    long table = 3L * (size + 1) > 2L * slots.length ? 16L * slots.length : 0;
    boolean fits = !pages.isEmpty() && free + HEAD + length <= pages.getLast().length;
    return table + (fits ? 0 : Math.max(PAGE, HEAD + length + 3L));
  }

  /** Puts a key in; the row that put it in before, or {@link NumberKeys#NEW}. */
  int put(byte[] key, int length, int row) {
    if (3L * (size + 1) > 2L * slots.length) {
      grow();
    }
    int hash = hash(key, length);
    int at = find(hash, key, 0, length);
    if (slots[at] != 0) {
      return row(place(slots[at]));
    }
    slots[at] = (long) hash << 32 | append(key, length, row) + 1L;
    size++;
    return NumberKeys.NEW;
  }

  boolean has(byte[] key, int length) {
    return slots[find(hash(key, length), key, 0, length)] != 0;
  }

  /**
   * Tells which of some keys are not there.
   *
   * @param missing takes a key's number among those asked for
   */
  void forEachMissing(AskedKeys asked, IntConsumer missing) {
    if (hashes.length < asked.count()) {
      hashes = new int[asked.count()];
      probes = new long[asked.count()];
    }
    int mask = slots.length - 1;
    for (int i = 0; i < asked.count(); i++) {
      hashes[i] = hash(asked.bytes(), asked.from(i), asked.length(i));
    }
    for (int i = 0; i < asked.count(); i++) { // Nothing waits for what is read here,
      probes[i] = slots[hashes[i] & mask];
    }
    for (int i = 0; i < asked.count(); i++) { // nor here.
      int place = place(probes[i]);
      touched += place < 0 ? 0 : page(place)[offset(place)];
    }
    for (int i = 0; i < asked.count(); i++) {
      if (slots[find(hashes[i], asked.bytes(), asked.from(i), asked.length(i))] == 0) {
        missing.accept(i);
      }
    }
  }

  private static int place(long slot) {
    return (int) slot - 1;
  }

  private int find(int hash, byte[] key, int from, int length) {
    int mask = slots.length - 1;
    int at = hash & mask;
    while (slots[at] != 0
        && !((int) (slots[at] >>> 32) == hash && isAt(place(slots[at]), key, from, length))) {
      at = at + 1 & mask;
    }
    return at;
  }

  private byte[] page(int place) {
    return pages.get((int) ((long) place * 4 / PAGE));
  }

  private static int offset(int place) {
    return (int) ((long) place * 4 % PAGE);
  }

  private boolean isAt(int place, byte[] key, int from, int length) {
    byte[] page = page(place);
    int at = offset(place);
    return (int) INTS.get(page, at + 4) == length
        && Arrays.equals(page, at + HEAD, at + HEAD + length, key, from, from + length);
  }

  private int row(int place) {
    return (int) INTS.get(page(place), offset(place));
  }

  private int append(byte[] key, int length, int row) {
    makeRoom(HEAD + length);
    byte[] page = pages.getLast();
    int place = (int) (((pages.size() - 1L) * PAGE + free) / 4);
    INTS.set(page, free, row);
    INTS.set(page, free + 4, length);
    System.arraycopy(key, 0, page, free + HEAD, length);
    free += HEAD + (length + 3 & ~3);
    return place;
  }

  /** The first page grows, so that few keys take little; the others have their size at once. */
  private void makeRoom(int bytes) {
    int there = pages.isEmpty() ? 0 : pages.getLast().length;
    if (!pages.isEmpty() && free + bytes <= there) {
      return;
    }
    boolean first = pages.size() <= 1 && there < PAGE && free + bytes <= PAGE;
    if (first) {
      byte[] page = pages.isEmpty() ? new byte[0] : pages.removeLast();
      int wanted = Math.max(4 * page.length, Math.max(FIRST_PAGE, free + bytes));
      pages.add(Arrays.copyOf(page, Math.min(PAGE, wanted)));
    } else {
      pages.add(new byte[Math.max(PAGE, bytes)]);
      free = 0;
    }
  }

  private void grow() {
    long[] old = slots;
    slots = new long[2 * old.length];
    int mask = slots.length - 1;
    for (long slot : old) {
      if (slot != 0) {
        int at = (int) (slot >>> 32) & mask;
        while (slots[at] != 0) {
          at = at + 1 & mask;
        }
        slots[at] = slot;
      }
    }
  }

  /** Takes a key with the row that put it in. */
  interface Each {
    void key(byte[] key, int row);
  }

  /** Shows all keys, in the order in which they were put in. */
  void forEach(Each each) {
    int[] inOrder = new int[size];
    int filled = 0;
    for (long slot : slots) {
      if (slot != 0) {
        inOrder[filled++] = place(slot);
      }
    }
    Arrays.sort(inOrder);
    for (int place : inOrder) {
      int at = offset(place) + HEAD;
      int length = (int) INTS.get(page(place), at - 4);
      each.key(Arrays.copyOfRange(page(place), at, at + length), row(place));
    }
  }

  /** How much memory it takes. */
  long bytes() {
    return 8L * slots.length + pages.stream().mapToLong(page -> page.length).sum();
  }

  int size() {
    return size;
  }
}
