package joiner.ddl;

import java.util.Collection;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;

/**
 * Gives things new names so that no two ever have the same, in whatever case: a name is given when
 * it is free, and a circle is opened by a name for the time being.
 */
final class RenameOrder {
  private final Map<String, String> open;
  private final Set<String> taken = new HashSet<>();

  /**
   * Names to give.
   *
   * @param names before → after
   * @param there all names there are before
   */
  RenameOrder(Map<String, String> names, Collection<String> there) {
    this.open = new LinkedHashMap<>(names);
    there.forEach(name -> taken.add(folded(name)));
  }

  private static String folded(String name) {
    return name.toLowerCase(Locale.ROOT);
  }

  /** Calls with each name and the one that it becomes, in an order that is free of clashes. */
  void each(BiConsumer<String, String> rename) {
    while (!open.isEmpty()) {
      boolean any = false;
      for (Iterator<Map.Entry<String, String>> all = open.entrySet().iterator(); all.hasNext(); ) {
        Map.Entry<String, String> next = all.next();
        if (isFree(next.getKey(), next.getValue())) {
          give(next.getKey(), next.getValue(), rename);
          all.remove();
          any = true;
        }
      }
      if (!any) {
        String stuck = open.keySet().iterator().next();
        String between = between();
        give(stuck, between, rename);
        open.put(between, open.remove(stuck));
      }
    }
  }

  private boolean isFree(String from, String to) {
    return !taken.contains(folded(to)) || folded(from).equals(folded(to));
  }

  private void give(String from, String to, BiConsumer<String, String> rename) {
    rename.accept(from, to);
    taken.remove(folded(from));
    taken.add(folded(to));
  }

  private String between() {
    int number = 1;
    while (taken.contains("renamed_" + number) || open.containsValue("renamed_" + number)) {
      number++;
    }
    return "renamed_" + number;
  }
}
