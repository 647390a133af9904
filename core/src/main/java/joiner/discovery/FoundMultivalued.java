package joiner.discovery;

import java.util.List;
import joiner.dependency.AttributeSet;

/**
 * Multivalued dependencies the rows show: for each value of the determinant, the values of each
 * block occur in every combination with those of the others.
 *
 * @param determinant columns by place, from 0
 * @param blocks the finest division of the other columns that are not decided; two and more
 */
public record FoundMultivalued(AttributeSet determinant, List<AttributeSet> blocks) {
  public FoundMultivalued {
    blocks = List.copyOf(blocks);
  }
}
