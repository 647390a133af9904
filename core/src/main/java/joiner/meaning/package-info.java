/**
 * What a design says: its formulas bound to the fields they read, worked out once for each table
 * that has not changed. Start at {@link joiner.meaning.Draft#meaning()}. Knows nothing of screens,
 * files or engines.
 */
@NullMarked
package joiner.meaning;

import org.jspecify.annotations.NullMarked;
