package joiner.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.LongSupplier;
import joiner.Tries;
import org.junit.jupiter.api.Test;

/** Sets of keys against the maps of the JDK. */
class KeysTest {
  private static LongSupplier keys(Random random) {
    long from = random.nextLong() >> random.nextInt(64);
    int spread = 1 + random.nextInt(5_000);
    return switch (random.nextInt(5)) {
      case 0 -> {
        long[] next = {from};
        yield () -> next[0]++;
      }
      case 1 -> {
        long[] next = {from};
        yield () -> next[0]--;
      }
      case 2 -> () -> from + random.nextInt(spread);
      case 3 -> () -> random.nextLong() >> random.nextInt(64);
      default ->
          () ->
              random.nextInt(50) == 0
                  ? List.of(0L, -1L, Long.MIN_VALUE, Long.MAX_VALUE).get(random.nextInt(4))
                  : random.nextInt(spread);
    };
  }

  @Test
  void numbersAreFoundWithTheRowThatPutThemInFirst() {
    for (long seed : Tries.of(200).toArray()) {
      var random = new Random(seed);
      LongSupplier next = keys(random);
      LongSupplier asked = keys(random);
      Map<Long, Integer> expected = new LinkedHashMap<>();
      var keys = new NumberKeys();
      int count = random.nextInt(6_000);
      for (int row = 0; row < count; row++) {
        long key = next.getAsLong();
        long most = keys.bytes() + keys.growth(key);
        Integer before = expected.putIfAbsent(key, row);
        assertThat(keys.put(key, row)).isEqualTo(before == null ? NumberKeys.NEW : before);
        assertThat(keys.bytes()).isLessThanOrEqualTo(most);
        long other = asked.getAsLong();
        assertThat(keys.has(other)).isEqualTo(expected.containsKey(other));
        assertThat(keys.has(key)).isTrue();
      }
      assertThat(keys.size()).isEqualTo(expected.size());
      var shown = new ArrayList<Map.Entry<Long, Integer>>();
      keys.forEach((key, row) -> shown.add(Map.entry(key, row)));
      assertThat(shown).containsExactlyElementsOf(expected.entrySet());
    }
  }

  @Test
  void bytesAreFoundWithTheRowThatPutThemInFirst() {
    for (long seed : Tries.of(60).toArray()) {
      var random = new Random(seed);
      Map<List<Byte>, Integer> expected = new HashMap<>();
      var inOrder = new ArrayList<List<Byte>>();
      var keys = new ByteKeys();
      for (int row = 0; row < 3_000; row++) {
        boolean large = random.nextInt(500) == 0;
        byte[] key = new byte[large ? 1_000_000 + random.nextInt(200_000) : random.nextInt(12)];
        for (int i = 0; i < Math.min(key.length, 12); i++) {
          key[i] = (byte) random.nextInt(3);
        }
        List<Byte> boxed = large ? List.of((byte) row, (byte) (row >> 8)) : boxed(key);
        if (large) {
          key[20] = (byte) row;
          key[21] = (byte) (row >> 8);
        }
        long most = keys.bytes() + keys.growth(key.length);
        Integer before = expected.putIfAbsent(boxed, row);
        if (before == null) {
          inOrder.add(boxed);
        }
        assertThat(keys.has(key, key.length)).isEqualTo(before != null);
        int put = keys.put(key, key.length, row);
        assertThat(put).isEqualTo(before == null ? NumberKeys.NEW : before);
        assertThat(keys.bytes()).isLessThanOrEqualTo(most);
      }
      var rows = new ArrayList<Integer>();
      keys.forEach((key, row) -> rows.add(row));
      assertThat(rows).isEqualTo(inOrder.stream().map(expected::get).toList());
    }
  }

  private static List<Byte> boxed(byte[] key) {
    var boxed = new ArrayList<Byte>();
    for (byte b : key) {
      boxed.add(b);
    }
    boxed.add((byte) 99); // So that no short one is taken for what stands for a long one.
    return boxed;
  }

  @Test
  void whatIsSetAsideComesBackByPartsInItsOrder() {
    var random = new Random(3);
    try (var spilled = new Spilled()) {
      Map<List<Byte>, List<Integer>> written = new HashMap<>();
      for (int row = 0; row < 200_000; row++) {
        byte[] key = Integer.toString(random.nextInt(40_000)).getBytes();
        spilled.write(key, key.length, row);
        written.computeIfAbsent(boxed(key), k -> new ArrayList<>()).add(row);
      }
      Map<List<Byte>, List<Integer>> read = new HashMap<>();
      for (int part = 0; part < Spilled.PARTS; part++) {
        spilled.forEach(
            part, (key, row) -> read.computeIfAbsent(boxed(key), k -> new ArrayList<>()).add(row));
      }
      assertThat(read).isEqualTo(written);
      assertThat(spilled.size()).isEqualTo(200_000);
    }
  }
}
