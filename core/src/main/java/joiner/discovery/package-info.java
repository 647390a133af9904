/**
 * What data shows by itself: column types and lengths, blanks, distinct values. Start at {@link
 * joiner.discovery.ColumnProfile}. Knows no files and no screens.
 */
@NullMarked
package joiner.discovery;

import org.jspecify.annotations.NullMarked;
