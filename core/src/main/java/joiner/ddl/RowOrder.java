package joiner.ddl;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.rows.Rows;

/** Rows of a table that refers to itself, each after the row it refers to. Linear in rows. */
final class RowOrder {
  private RowOrder() {}

  /**
   * Row numbers from 0 in an order in which they can be inserted; rows in a circle keep their place
   * at the end.
   */
  static List<Integer> of(Rows rows, List<Relationship> own) {
    int count = rows.count();
    int[] waiting = new int[count];
    Map<Integer, List<Integer>> followers = new HashMap<>();
    for (Relationship r : own) {
      Map<List<Optional<String>>, Integer> byKey = byKey(rows, r.parentFields());
      for (int row = 0; row < count; row++) {
        Integer parent = byKey.get(rows.row(row, r.childFields()));
        if (parent != null && parent != row) {
          waiting[row]++;
          followers.computeIfAbsent(parent, p -> new ArrayList<>()).add(row);
        }
      }
    }
    return order(count, waiting, followers);
  }

  private static Map<List<Optional<String>>, Integer> byKey(Rows rows, List<FieldId> key) {
    Map<List<Optional<String>>, Integer> byKey = HashMap.newHashMap(rows.count());
    for (int row = 0; row < rows.count(); row++) {
      byKey.putIfAbsent(rows.row(row, key), row);
    }
    return byKey;
  }

  private static List<Integer> order(
      int count, int[] waiting, Map<Integer, List<Integer>> followers) {
    var ready = new ArrayDeque<Integer>();
    boolean[] done = new boolean[count];
    for (int row = 0; row < count; row++) {
      if (waiting[row] == 0) {
        ready.add(row);
      }
    }
    var order = new ArrayList<Integer>(count);
    while (!ready.isEmpty()) {
      int row = ready.poll();
      done[row] = true;
      order.add(row);
      for (int follower : followers.getOrDefault(row, List.of())) {
        if (--waiting[follower] == 0) {
          ready.add(follower);
        }
      }
    }
    for (int row = 0; row < count; row++) {
      if (!done[row]) {
        order.add(row);
      }
    }
    return order;
  }
}
