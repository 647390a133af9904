package joiner.desktop.shape;

import java.util.Optional;
import joiner.model.Field;
import joiner.model.FieldGroup;

/**
 * A line of the grid: a field, the heading of a group, or the empty one at the end that waits for a
 * new field.
 *
 * @param group the group that the line heads, or that its field stands in
 */
record FieldLine(Optional<Field> field, Optional<FieldGroup> group) {
  /** The one that waits for a new field. */
  static final FieldLine NEW = new FieldLine(Optional.empty(), Optional.empty());

  boolean isNew() {
    return field.isEmpty() && group.isEmpty();
  }

  /** The group that the line heads. */
  Optional<FieldGroup> heading() {
    return field.isPresent() ? Optional.empty() : group;
  }

  /** What stays the same while what is said of it changes. */
  Object key() {
    return field.<Object>map(Field::id).or(() -> group.map(FieldGroup::id)).orElse("");
  }
}
