/**
 * What rules mean together: whether they can be met at all, and by which rows. Knows the meaning of
 * tables and a solver for logic with numbers and texts, no rows and no engine.
 */
@NullMarked
package joiner.reasoning;

import org.jspecify.annotations.NullMarked;
