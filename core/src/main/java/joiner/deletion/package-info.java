/**
 * What deleting rows does to the rows that refer to them, over the whole chain, without deleting
 * anything. Knows rows and relationships, no engine.
 */
@NullMarked
package joiner.deletion;

import org.jspecify.annotations.NullMarked;
