package joiner.discovery;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import joiner.dependency.AttributeSet;
import joiner.rows.EncodedTable;

/**
 * Finds the multivalued dependencies that keep a table's rows from fourth normal form: those whose
 * determinant is no key and that do not follow from a functional dependency. A division into two
 * holds if in each group of rows the different rows are as many as the different values of one side
 * times those of the other (Ronald Fagin, 1977). Two columns that are not independent of each other
 * stay together; of what that leaves all divisions are tried, so tables are searched up to a width
 * only.
 */
public final class MultivaluedSearch {
  /** Widest table searched, in columns. */
  public static final int WIDEST = 12;

  /** Longest table searched, in rows. */
  public static final int LONGEST = 50_000;

  private static final int DETERMINANT = 2;

  private final EncodedTable table;
  private final BooleanSupplier stop;

  private MultivaluedSearch(EncodedTable table, BooleanSupplier stop) {
    this.table = table;
    this.stop = stop;
  }

  /**
   * Searches a table; nothing is found in wider ones than {@link #WIDEST} or longer ones than
   * {@link #LONGEST}.
   *
   * @param stop asked often; once true the search ends with what it has
   */
  public static List<FoundMultivalued> of(EncodedTable table, BooleanSupplier stop) {
    return table.columns().size() > WIDEST || table.rows() == 0 || table.rows() > LONGEST
        ? List.of()
        : new MultivaluedSearch(table, stop).run();
  }

  private List<FoundMultivalued> run() {
    var found = new ArrayList<FoundMultivalued>();
    int columns = table.columns().size();
    for (int chosen = 0; chosen < 1 << columns; chosen++) {
      if (Integer.bitCount(chosen) <= DETERMINANT && !stop.getAsBoolean()) {
        AttributeSet determinant = set(chosen);
        boolean known = found.stream().anyMatch(f -> determinant.containsAll(f.determinant()));
        if (!known) {
          List<AttributeSet> blocks = blocks(determinant);
          if (blocks.size() > 1) {
            found.add(new FoundMultivalued(determinant, blocks));
          }
        }
      }
    }
    return found;
  }

  private static AttributeSet set(int chosen) {
    AttributeSet set = AttributeSet.EMPTY;
    for (int place = 0; chosen >> place != 0; place++) {
      set = (chosen >> place & 1) == 1 ? set.with(place) : set;
    }
    return set;
  }

  /** The finest division of the columns that the determinant does not decide. */
  private List<AttributeSet> blocks(AttributeSet determinant) {
    Collection<List<Integer>> groups = groups(determinant);
    List<Integer> free = new ArrayList<>();
    for (int column = 0; column < table.columns().size(); column++) {
      if (!determinant.contains(column) && !decided(groups, column)) {
        free.add(column);
      }
    }
    List<AttributeSet> clumps = clumps(groups, free);
    var blocks = new ArrayList<AttributeSet>();
    while (!clumps.isEmpty()) {
      AttributeSet block = smallest(groups, clumps);
      blocks.add(block);
      clumps.removeIf(block::containsAll);
    }
    return blocks;
  }

  /** Columns tied together by pairs that are not independent of each other. */
  private List<AttributeSet> clumps(Collection<List<Integer>> groups, List<Integer> free) {
    List<AttributeSet> clumps = new ArrayList<>();
    for (int column : free) {
      AttributeSet clump = AttributeSet.of(column);
      for (AttributeSet other : List.copyOf(clumps)) {
        boolean tied =
            other
                .places()
                .anyMatch(
                    place -> !independent(groups, AttributeSet.of(column), AttributeSet.of(place)));
        if (tied) {
          clumps.remove(other);
          clump = clump.union(other);
        }
      }
      clumps.add(clump);
    }
    return clumps;
  }

  private Collection<List<Integer>> groups(AttributeSet determinant) {
    Map<List<Integer>, List<Integer>> groups = new HashMap<>();
    for (int row = 0; row < table.rows(); row++) {
      groups.computeIfAbsent(codes(row, determinant), k -> new ArrayList<>()).add(row);
    }
    return groups.values();
  }

  private boolean decided(Collection<List<Integer>> groups, int column) {
    return groups.stream()
        .allMatch(
            group ->
                group.stream().map(row -> table.columns().get(column).code(row)).distinct().count()
                    <= 1);
  }

  /** The smallest block that holds the first clump and is independent of the others. */
  private AttributeSet smallest(Collection<List<Integer>> groups, List<AttributeSet> clumps) {
    AttributeSet all = clumps.stream().reduce(AttributeSet.EMPTY, AttributeSet::union);
    for (int size = 1; size < clumps.size(); size++) {
      for (int chosen = 0; chosen < 1 << clumps.size() - 1; chosen++) {
        if (Integer.bitCount(chosen) == size - 1 && !stop.getAsBoolean()) {
          AttributeSet block = clumps.getFirst();
          for (int i = 1; i < clumps.size(); i++) {
            block = (chosen >> i - 1 & 1) == 1 ? block.union(clumps.get(i)) : block;
          }
          if (independent(groups, block, all.minus(block))) {
            return block;
          }
        }
      }
    }
    return all;
  }

  private boolean independent(
      Collection<List<Integer>> groups, AttributeSet one, AttributeSet other) {
    for (List<Integer> group : groups) {
      Set<List<Integer>> ones = new HashSet<>();
      Set<List<Integer>> others = new HashSet<>();
      Set<List<Integer>> both = new HashSet<>();
      for (int row : group) {
        ones.add(codes(row, one));
        others.add(codes(row, other));
        both.add(codes(row, one.union(other)));
      }
      if ((long) ones.size() * others.size() != both.size()) {
        return false;
      }
    }
    return true;
  }

  private List<Integer> codes(int row, AttributeSet columns) {
    var codes = new ArrayList<Integer>();
    columns.places().forEach(column -> codes.add(table.columns().get(column).code(row)));
    return codes;
  }
}
