/**
 * Rows of a design's tables, kept as the text people typed, and the one place where text becomes a
 * typed value. Start at {@link joiner.rows.SampleRows}. Knows no files and no engines.
 */
@NullMarked
package joiner.rows;

import org.jspecify.annotations.NullMarked;
