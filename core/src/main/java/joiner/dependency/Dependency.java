package joiner.dependency;

/**
 * A functional dependency: rows that agree in {@code from} agree in {@code to}.
 *
 * @param from the determinant; empty: {@code to} is constant
 * @param to what it decides
 */
public record Dependency(AttributeSet from, AttributeSet to) {
  /** Whether it holds in every table. */
  public boolean isTrivial() {
    return from.containsAll(to);
  }
}
