package joiner.desktop.shape;

import java.util.Optional;
import joiner.model.Field;

/** A line of the grid: a field, or the empty one at the end that waits for a new field. */
record FieldLine(Optional<Field> field) {}
