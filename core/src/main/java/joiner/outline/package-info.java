/**
 * Reads lists of fields and tables as people write them down, in text or in a spreadsheet, and
 * writes fields so. Start at {@link joiner.outline.Outline}. Knows no screens and no files.
 */
@NullMarked
package joiner.outline;

import org.jspecify.annotations.NullMarked;
