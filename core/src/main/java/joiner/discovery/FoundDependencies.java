package joiner.discovery;

import java.util.List;
import joiner.dependency.AttributeSet;

/**
 * What a search for dependencies has found.
 *
 * @param rows rows searched
 * @param dependencies minimal ones: with no column of the determinant to spare; shorter first
 * @param keys minimal sets of columns in which no two rows agree, shorter first; none where a row
 *     is there twice
 * @param complete whether these are all, with nothing cut short by a limit
 */
public record FoundDependencies(
    int rows, List<FoundDependency> dependencies, List<AttributeSet> keys, boolean complete) {
  public FoundDependencies {
    dependencies = List.copyOf(dependencies);
    keys = List.copyOf(keys);
  }
}
