package joiner.discovery;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BooleanSupplier;
import joiner.dependency.AttributeSet;

/**
 * All minimal sets of columns that determine one target: a column, or the row itself.
 *
 * <p>They are the minimal hitting sets of the difference sets that hold the target. These are
 * listed depth first (Keisuke Murakami, Takeaki Uno, "Efficient algorithms for dualizing
 * large-scale hypergraphs", 2014) over the few difference sets known so far; a set that meets them
 * all is put to the rows, and where it fails, the pairs of rows that contradict it give further
 * difference sets, with which the same search goes on (Johann Birnick, Thomas Bläsius, Tobias
 * Friedrich, Felix Naumann, Thorsten Papenbrock, Martin Schirneck, "Hitting set enumeration with
 * partial information for unique column combination discovery", 2020; Tobias Bleifuß, Thorsten
 * Papenbrock, Thomas Bläsius, Martin Schirneck, Felix Naumann, "Discovering functional dependencies
 * through hitting set enumeration", 2024).
 *
 * <p>Every element of a set on the way has a difference set that it alone meets, so whatever passes
 * the rows is minimal and, being met once only, listed once; a search that is stopped has found
 * true and minimal determinants only. Memory is the depth of the search times the difference sets.
 */
final class DeterminantSearch {
  /** Target for keys: the row itself, in which any two rows differ. */
  static final int ROW = -1;

  /** Difference sets to begin with. */
  private static final int FIRST_SETS = 2_000;

  /** Contradicting pairs taken from one attempt. */
  private static final int CONTRADICTIONS = 32;

  private final Relation relation;
  private final int target;
  private final DifferenceSets pool;
  private final int largest;
  private final BooleanSupplier stop;
  private final ColumnSets edges;
  private final int[] scratch;
  private final int[] firstRow;
  private final List<Partition> singles;
  private final List<Node> path = new ArrayList<>();
  private final List<AttributeSet> found = new ArrayList<>();
  private boolean complete = true;

  /**
   * A search.
   *
   * @param singles for each column the rows that agree in it
   * @param pool difference sets known so far; those found here are added
   * @param largest no set of more columns is looked for
   */
  DeterminantSearch(
      Relation relation,
      List<Partition> singles,
      int target,
      DifferenceSets pool,
      int largest,
      BooleanSupplier stop) {
    this.relation = relation;
    this.singles = singles;
    this.target = target;
    this.pool = pool;
    this.largest = largest;
    this.stop = stop;
    this.edges = new ColumnSets(relation.columns());
    this.scratch = relation.scratch();
    this.firstRow = new int[scratch.length];
  }

  /** What the search has reached: columns chosen, and what they leave to be met. */
  private static final class Node {
    final int[] chosen;
    final long[] candidates;
    int[] unmet;
    int unmetCount;

    /** For each chosen column the difference sets that it alone meets. */
    final int[][] own;

    /** Rows that agree in all chosen columns, once asked for. */
    @org.jspecify.annotations.Nullable Partition partition;

    Node(int[] chosen, long[] candidates, int[] unmet, int unmetCount, int[][] own) {
      this.chosen = chosen;
      this.candidates = candidates;
      this.unmet = unmet;
      this.unmetCount = unmetCount;
      this.own = own;
    }

    void leaveUnmet(int edge) {
      if (unmetCount == unmet.length) {
        unmet = Arrays.copyOf(unmet, Math.max(16, 2 * unmetCount));
      }
      unmet[unmetCount++] = edge;
    }
  }

  /** Runs the search; gives the determinants found. */
  List<AttributeSet> run() {
    if (stop.getAsBoolean()) {
      complete = false;
      return found;
    }
    long[] candidates = new long[edges.words()];
    for (int column = 0; column < relation.columns(); column++) {
      if (column != target) {
        candidates[column >> 6] |= 1L << column;
      }
    }
    var root = new Node(new int[0], candidates, new int[64], 0, new int[0][]);
    for (long[] set : pool.holding(target, FIRST_SETS)) {
      root.leaveUnmet(edges.add(set));
    }
    search(root);
    return found;
  }

  /** Whether nothing was cut short. */
  boolean complete() {
    return complete;
  }

  private void search(Node node) {
    if (stop.getAsBoolean()) {
      complete = false;
      return;
    }
    path.add(node);
    if (node.unmetCount > 0 || !determines(node)) {
      if (node.chosen.length < largest) {
        branch(node);
      } else if (edges.shared(fewestChoices(node), node.candidates) > 0) {
        complete = false;
      }
    } else {
      found.add(AttributeSet.of(node.chosen));
    }
    path.removeLast();
  }

  /** One of the columns of an unmet set must be chosen; tries each. */
  private void branch(Node node) {
    long[] next = new long[edges.words()];
    edges.copy(fewestChoices(node), next);
    for (int word = 0; word < next.length; word++) {
      next[word] &= node.candidates[word];
      node.candidates[word] &= ~next[word];
    }
    for (int word = 0; word < next.length; word++) {
      for (long left = next[word]; left != 0; left &= left - 1) {
        if (stop.getAsBoolean()) {
          complete = false;
          return;
        }
        int column = (word << 6) + Long.numberOfTrailingZeros(left);
        Node child = extend(node, column);
        if (child != null) {
          search(child);
        }
        node.candidates[word] |= 1L << column;
      }
    }
  }

  private int fewestChoices(Node node) {
    int best = node.unmet[0];
    int fewest = Integer.MAX_VALUE;
    for (int i = 0; i < node.unmetCount && fewest > 1; i++) {
      int choices = edges.shared(node.unmet[i], node.candidates);
      if (choices < fewest) {
        fewest = choices;
        best = node.unmet[i];
      }
    }
    return best;
  }

  /** The node with one column more; null where a chosen column is no longer needed. */
  private @org.jspecify.annotations.Nullable Node extend(Node node, int column) {
    int[][] own = new int[node.own.length + 1][];
    for (int i = 0; i < node.own.length; i++) {
      own[i] = without(node.own[i], node.own[i].length, column);
      if (own[i].length == 0) {
        return null;
      }
    }
    int[] unmet = without(node.unmet, node.unmetCount, column);
    int[] met = new int[node.unmetCount - unmet.length];
    int filled = 0;
    for (int i = 0; i < node.unmetCount; i++) {
      if (edges.contains(node.unmet[i], column)) {
        met[filled++] = node.unmet[i];
      }
    }
    own[node.own.length] = met;
    int[] chosen = Arrays.copyOf(node.chosen, node.chosen.length + 1);
    chosen[node.chosen.length] = column;
    return filled == 0 ? null : new Node(chosen, node.candidates.clone(), unmet, unmet.length, own);
  }

  private int[] without(int[] sets, int count, int column) {
    int[] kept = new int[count];
    int filled = 0;
    for (int i = 0; i < count; i++) {
      if (!edges.contains(sets[i], column)) {
        kept[filled++] = sets[i];
      }
    }
    return Arrays.copyOf(kept, filled);
  }

  /**
   * Puts the chosen columns to the rows. Pairs of rows that contradict become difference sets that
   * no node of the path meets.
   */
  private boolean determines(Node node) {
    if (relation.rows() < 2) {
      return true;
    }
    var contradictions = new ArrayList<long[]>();
    if (node.chosen.length == 0) {
      compare(Partition.whole(relation.rows()), contradictions);
    } else {
      Partition before = partition(path.size() - 2);
      compare(before, relation.codes(node.chosen[node.chosen.length - 1]), contradictions);
    }
    for (long[] set : DifferenceSets.smallest(contradictions, CONTRADICTIONS)) {
      int edge = edges.add(set);
      path.forEach(reached -> reached.leaveUnmet(edge));
    }
    return contradictions.isEmpty();
  }

  /** The rows that agree in the columns chosen at a place of the path. */
  private Partition partition(int place) {
    Node node = path.get(place);
    if (node.partition == null) {
      int last = node.chosen.length - 1;
      node.partition =
          last < 0
              ? Partition.whole(relation.rows())
              : last == 0
                  ? singles.get(node.chosen[0])
                  : partition(place - 1).refine(relation.codes(node.chosen[last]), scratch);
    }
    return node.partition;
  }

  /** Finds rows of one group that differ in the target. */
  private void compare(Partition partition, List<long[]> contradictions) {
    for (int group = 0; group < partition.groups(); group++) {
      int first = partition.row(partition.start(group));
      for (int at = partition.start(group) + 1; at < partition.end(group); at++) {
        if (differ(first, partition.row(at))) {
          contradict(first, partition.row(at), contradictions);
          if (contradictions.size() >= CONTRADICTIONS) {
            return;
          }
        }
      }
    }
  }

  /** Finds rows of one group that agree in a further column and differ in the target. */
  private void compare(Partition partition, int[] codes, List<long[]> contradictions) {
    for (int group = 0; group < partition.groups(); group++) {
      for (int at = partition.start(group); at < partition.end(group); at++) {
        int code = codes[partition.row(at)];
        if (code < 0) {
          continue;
        }
        int row = partition.row(at);
        int first = firstRow[code] - 1;
        firstRow[code] = row + 1;
        if (first >= 0 && differ(first, row)) {
          contradict(first, row, contradictions);
        }
      }
      for (int at = partition.start(group); at < partition.end(group); at++) {
        int code = codes[partition.row(at)];
        if (code >= 0) {
          firstRow[code] = 0;
        }
      }
      if (contradictions.size() >= CONTRADICTIONS) {
        return;
      }
    }
  }

  private boolean differ(int one, int other) {
    if (target == ROW) {
      return true;
    }
    int code = relation.codes(target)[one];
    return code < 0 || code != relation.codes(target)[other];
  }

  private void contradict(int one, int other, List<long[]> contradictions) {
    long[] set = new long[edges.words()];
    relation.difference(one, other, set);
    pool.add(set);
    if (target != ROW) {
      set[target >> 6] &= ~(1L << target);
    }
    contradictions.add(set);
  }
}
