package joiner.discovery;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import joiner.dependency.AttributeSet;
import joiner.rows.EncodedTable;

/**
 * Finds the minimal candidate keys and functional dependencies of a table's rows, exactly: every
 * row counts, sampling only steers the search.
 *
 * <p>The answer may be exponential in the columns. Time is bounded by the sets of columns tried
 * times the rows that agree in them; two hundred columns are fine where few dependencies hold.
 *
 * @param emptyEqual whether two empty cells count as the same value
 * @param largestDeterminant no determinant and no key of more columns is looked for
 * @param stop asked often, from several threads; once true the search ends with what it has
 */
public record DependencySearch(boolean emptyEqual, int largestDeterminant, BooleanSupplier stop) {
  /** A search for everything: empty cells are equal, nothing is limited. */
  public static DependencySearch full() {
    return new DependencySearch(true, Integer.MAX_VALUE, () -> false);
  }

  /** All minimal keys and dependencies that hold in every row. */
  public FoundDependencies exact(EncodedTable table) {
    Relation relation = Relation.of(table, emptyEqual);
    List<Partition> singles = singles(relation);
    var pool = new DifferenceSets(relation);
    pool.sample(singles);
    var searches =
        IntStream.range(DeterminantSearch.ROW, relation.columns())
            .mapToObj(
                target ->
                    new DeterminantSearch(relation, singles, target, pool, largest(table), stop))
            .toList();
    List<List<AttributeSet>> found = searches.parallelStream().map(DeterminantSearch::run).toList();
    var dependencies = new ArrayList<FoundDependency>();
    for (int column = 0; column < relation.columns(); column++) {
      for (AttributeSet determinant : found.get(column + 1)) {
        dependencies.add(new FoundDependency(determinant, column, 0));
      }
    }
    return new FoundDependencies(
        table.rows(),
        dependencies.stream().sorted().toList(),
        found.getFirst().stream().sorted().toList(),
        searches.stream().allMatch(DeterminantSearch::complete));
  }

  /** All minimal keys, without the dependencies. */
  public FoundDependencies exactKeys(EncodedTable table) {
    return keys(Relation.of(table, emptyEqual), largest(table));
  }

  private FoundDependencies keys(Relation relation, int largest) {
    List<Partition> singles = singles(relation);
    var pool = new DifferenceSets(relation);
    pool.sample(singles);
    var keys = new DeterminantSearch(relation, singles, DeterminantSearch.ROW, pool, largest, stop);
    List<AttributeSet> found = keys.run();
    return new FoundDependencies(
        relation.rows(), List.of(), found.stream().sorted().toList(), keys.complete());
  }

  /**
   * All minimal dependencies that hold but for a share of the rows; the keys are exact.
   *
   * @param maxError the share of rows that may have to go, 0 to 1
   */
  public FoundDependencies approximate(EncodedTable table, double maxError) {
    Relation relation = Relation.of(table, emptyEqual);
    FoundDependencies found = approximate(relation, maxError, largest(table));
    FoundDependencies keys = keys(relation, largest(table));
    return new FoundDependencies(
        table.rows(), found.dependencies(), keys.keys(), keys.complete() && found.complete());
  }

  /** The same without looking for keys. */
  public FoundDependencies approximateDependencies(EncodedTable table, double maxError) {
    return approximate(Relation.of(table, emptyEqual), maxError, largest(table));
  }

  private FoundDependencies approximate(Relation relation, double maxError, int largest) {
    if (maxError < 0 || maxError > 1) {
      throw new IllegalArgumentException("an error is a share from 0 to 1, not " + maxError);
    }
    int mostExceptions = (int) Math.floor(maxError * relation.rows() + 1e-9);
    var search = new ApproximateSearch(relation, mostExceptions, largest, stop);
    List<FoundDependency> dependencies = search.run();
    return new FoundDependencies(
        relation.rows(), dependencies.stream().sorted().toList(), List.of(), search.complete());
  }

  private int largest(EncodedTable table) {
    return Math.min(largestDeterminant, table.columns().size());
  }

  private static List<Partition> singles(Relation relation) {
    Partition whole = Partition.whole(relation.rows());
    int[] scratch = relation.scratch();
    return IntStream.range(0, relation.columns())
        .mapToObj(column -> whole.refine(relation.codes(column), scratch))
        .toList();
  }
}
