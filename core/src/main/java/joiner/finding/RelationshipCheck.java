package joiner.finding;

import java.util.function.Consumer;
import joiner.model.Relationship;
import joiner.model.Table;

/**
 * A check that looks at one relationship and its two tables only, so that its findings hold while
 * those stay.
 */
non-sealed interface RelationshipCheck extends DesignCheck {
  /** Reports what it finds in one relationship. */
  void run(Relationship r, Table child, Table parent, Consumer<Finding> found);
}
