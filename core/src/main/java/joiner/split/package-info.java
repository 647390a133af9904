/**
 * Splits a flat table into the tables it really is, by the facts its rows show. Start at {@link
 * joiner.split.SplitTable}; {@link joiner.split.Rejoin} proves that nothing was lost.
 */
@NullMarked
package joiner.split;

import org.jspecify.annotations.NullMarked;
