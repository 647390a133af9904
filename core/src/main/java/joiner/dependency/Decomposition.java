package joiner.dependency;

import java.util.List;

/**
 * A table split into several, with its proofs.
 *
 * @param parts the attributes of each table
 * @param lossless whether joining them always gives back exactly the table
 * @param lost dependencies of the cover that no single table can keep
 * @param complete whether each part was searched in full for further violations
 */
public record Decomposition(
    List<AttributeSet> parts, boolean lossless, List<Dependency> lost, boolean complete) {
  public Decomposition {
    parts = List.copyOf(parts);
    lost = List.copyOf(lost);
  }
}
