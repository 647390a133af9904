package joiner.ddl;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import joiner.Tries;
import org.junit.jupiter.api.Test;

class RenameOrderTest {
  /**
   * A law: at no moment have two things one name, in whatever case, and in the end each its own.
   */
  @Test
  void noTwoThingsEverHaveOneName() {
    Tries.of(500)
        .forEach(
            seed -> {
              var random = new Random(seed);
              List<String> all =
                  IntStream.range(0, random.nextInt(1, 9)).mapToObj(i -> "Kiln" + i).toList();
              var targets = new ArrayList<>(all);
              Collections.shuffle(targets, random);
              Map<String, String> names = new HashMap<>();
              for (int i = 0; i < all.size(); i++) {
                if (random.nextInt(3) > 0) {
                  names.put(all.get(i), targets.get(i));
                }
              }
              names.values().removeIf(name -> all.contains(name) && !names.containsKey(name));
              names.replaceAll(
                  (from, to) -> random.nextInt(4) == 0 ? from.toLowerCase(Locale.ROOT) : to);
              names.entrySet().removeIf(e -> e.getKey().equals(e.getValue()));
              assertInOrder(withoutClash(names), all);
            });
  }

  /** Two things may not be meant to have one name. */
  private static Map<String, String> withoutClash(Map<String, String> names) {
    var taken = new HashSet<String>();
    Map<String, String> left = new HashMap<>(names);
    left.entrySet().removeIf(e -> !taken.add(e.getValue().toLowerCase(Locale.ROOT)));
    boolean again = true;
    while (again) { // What stays where it was keeps its name.
      again =
          left.entrySet()
              .removeIf(
                  e ->
                      !e.getValue().equalsIgnoreCase(e.getKey())
                          && left.keySet().stream()
                              .noneMatch(k -> k.equalsIgnoreCase(e.getValue())));
    }
    return left;
  }

  private static void assertInOrder(Map<String, String> names, List<String> all) {
    Map<String, String> now = new HashMap<>();
    all.forEach(name -> now.put(name, name));
    new RenameOrder(names, all)
        .each(
            (from, to) -> {
              List<String> others = new ArrayList<>(now.values());
              assertThat(others.remove(from)).isTrue();
              assertThat(others).noneMatch(to::equalsIgnoreCase);
              now.replaceAll((origin, name) -> name.equals(from) ? to : name);
            });
    all.forEach(name -> assertThat(now.get(name)).isEqualTo(names.getOrDefault(name, name)));
  }
}
