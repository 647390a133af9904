/**
 * The stage Shape: fields, keys and sample rows of a table. Start at {@link
 * joiner.desktop.shape.ShapeView}.
 */
@NullMarked
package joiner.desktop.shape;

import org.jspecify.annotations.NullMarked;
