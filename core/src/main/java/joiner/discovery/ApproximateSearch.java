package joiner.discovery;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import joiner.dependency.AttributeSet;

/**
 * Minimal dependencies that hold but for a number of rows, level by level: a column decided by a
 * set is not asked of any larger set (Ykä Huhtala, Juha Kärkkäinen, Pasi Porkka, Hannu Toivonen,
 * "TANE", 1999). Only the sets of two neighbouring levels are kept; the rows that agree are worked
 * out anew along the common beginnings of sets that follow each other.
 */
final class ApproximateSearch {
  private final Relation relation;
  private final int mostExceptions;
  private final int largest;
  private final BooleanSupplier stop;
  private final int[] scratch;
  private final List<FoundDependency> found = new ArrayList<>();

  /** Rows that agree in the first so many columns of the set at hand. */
  private final List<Partition> prefixes = new ArrayList<>();

  private int[] prefix = new int[0];
  private boolean complete = true;

  ApproximateSearch(Relation relation, int mostExceptions, int largest, BooleanSupplier stop) {
    this.relation = relation;
    this.mostExceptions = mostExceptions;
    this.largest = largest;
    this.stop = stop;
    this.scratch = relation.scratch();
    prefixes.add(Partition.whole(relation.rows()));
  }

  boolean complete() {
    return complete;
  }

  List<FoundDependency> run() {
    Map<AttributeSet, AttributeSet> level = new HashMap<>();
    level.put(AttributeSet.EMPTY, AttributeSet.first(relation.columns()));
    for (int size = 0; !level.isEmpty(); size++) {
      if (size > largest) {
        complete = false;
        break;
      }
      Map<AttributeSet, AttributeSet> open = new HashMap<>();
      for (AttributeSet set : level.keySet().stream().sorted().toList()) {
        if (stop.getAsBoolean()) {
          complete = false;
          return found;
        }
        AttributeSet left = undecided(set, level.get(set));
        if (!left.isEmpty()) {
          open.put(set, left);
        }
      }
      level = next(open);
    }
    return found;
  }

  /** Those of the columns that the set does not decide well enough. */
  private AttributeSet undecided(AttributeSet set, AttributeSet asked) {
    Partition partition = partition(set.places().toArray());
    AttributeSet left = asked;
    for (int column : asked.places().toArray()) {
      int exceptions = exceptions(partition, relation.codes(column), scratch);
      if (exceptions <= mostExceptions) {
        found.add(new FoundDependency(set, column, exceptions));
        left = left.without(column);
      }
    }
    return left;
  }

  private Partition partition(int[] set) {
    int same = 0;
    while (same < set.length && same < prefix.length && set[same] == prefix[same]) {
      same++;
    }
    while (prefixes.size() > same + 1) {
      prefixes.removeLast();
    }
    for (int i = same; i < set.length; i++) {
      prefixes.add(prefixes.getLast().refine(relation.codes(set[i]), scratch));
    }
    prefix = set;
    return prefixes.getLast();
  }

  /** The sets of one column more, with the columns that none of their parts decides. */
  private Map<AttributeSet, AttributeSet> next(Map<AttributeSet, AttributeSet> open) {
    Map<AttributeSet, AttributeSet> next = new HashMap<>();
    for (AttributeSet set : open.keySet()) {
      if (stop.getAsBoolean()) {
        complete = false;
        return Map.of();
      }
      int last = set.places().max().orElse(-1);
      for (int column = last + 1; column < relation.columns(); column++) {
        AttributeSet larger = set.with(column);
        AttributeSet asked = askedOf(larger, open);
        if (!asked.isEmpty()) {
          next.put(larger, asked);
        }
      }
    }
    return next;
  }

  private static AttributeSet askedOf(AttributeSet larger, Map<AttributeSet, AttributeSet> open) {
    AttributeSet asked = null;
    for (int column : larger.places().toArray()) {
      AttributeSet left = open.getOrDefault(larger.without(column), AttributeSet.EMPTY);
      asked = asked == null ? left : asked.intersection(left);
      if (asked.isEmpty()) {
        return AttributeSet.EMPTY;
      }
    }
    return asked == null ? AttributeSet.EMPTY : asked.minus(larger);
  }

  /** The fewest rows that must go so that the groups agree in the column. */
  static int exceptions(Partition partition, int[] codes, int[] scratch) {
    int exceptions = 0;
    for (int group = 0; group < partition.groups(); group++) {
      int most = 1;
      for (int at = partition.start(group); at < partition.end(group); at++) {
        int code = codes[partition.row(at)];
        if (code >= 0) {
          most = Math.max(most, ++scratch[code]);
        }
      }
      for (int at = partition.start(group); at < partition.end(group); at++) {
        int code = codes[partition.row(at)];
        if (code >= 0) {
          scratch[code] = 0;
        }
      }
      exceptions += partition.end(group) - partition.start(group) - most;
    }
    return exceptions;
  }
}
