/**
 * What texts look like: patterns and whether a text has one. Start at {@link
 * joiner.shape.TextPattern}. Knows no fields and no engines.
 */
@NullMarked
package joiner.shape;

import org.jspecify.annotations.NullMarked;
