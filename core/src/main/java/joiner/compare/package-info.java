/**
 * What an edit, another design or a database has otherwise, in sentences with the risk of each.
 * Start at {@link joiner.compare.Effects}. Knows no files.
 */
@NullMarked
package joiner.compare;

import org.jspecify.annotations.NullMarked;
