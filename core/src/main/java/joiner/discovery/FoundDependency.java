package joiner.discovery;

import joiner.dependency.AttributeSet;

/**
 * A functional dependency the rows show.
 *
 * @param determinant columns by place, from 0; empty: the dependent is constant
 * @param dependent column by place, from 0
 * @param exceptions the fewest rows that would have to go for it to hold; 0 where it holds
 */
public record FoundDependency(AttributeSet determinant, int dependent, int exceptions)
    implements Comparable<FoundDependency> {
  /** Shorter determinants first, then by place. */
  @Override
  public int compareTo(FoundDependency other) {
    int byDeterminant = determinant.compareTo(other.determinant);
    return byDeterminant != 0 ? byDeterminant : Integer.compare(dependent, other.dependent);
  }

  /**
   * The share of rows that contradict, 0 to 1 (the error g₃ of Jyrki Kivinen, Heikki Mannila,
   * "Approximate inference of functional dependencies from relations", 1995).
   */
  public double error(int rows) {
    return rows == 0 ? 0 : (double) exceptions / rows;
  }
}
