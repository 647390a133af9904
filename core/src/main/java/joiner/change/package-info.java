/**
 * What happened to a design and its rows, as data: changes addressed by id, each with what was
 * before and what is after. They can be shown, kept, made again, taken back and compared; {@link
 * joiner.change.Changes} says how.
 */
@NullMarked
package joiner.change;

import org.jspecify.annotations.NullMarked;
