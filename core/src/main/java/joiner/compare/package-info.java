/**
 * What differs between two designs. Start at {@link joiner.compare.Differences}. Knows no engines
 * and no files.
 */
@NullMarked
package joiner.compare;

import org.jspecify.annotations.NullMarked;
