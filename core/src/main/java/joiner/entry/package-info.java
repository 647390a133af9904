/**
 * Rows entered as people do it: one with its details, or many from a file; what nobody types is
 * filled in, matches with rows that are there are found, and what the design forbids is told before
 * anything is changed. Knows no window.
 */
@NullMarked
package joiner.entry;

import org.jspecify.annotations.NullMarked;
