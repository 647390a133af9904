/**
 * What database engines are: one description each of names, types, spelling, what they can do and
 * what is lost with them. Start at {@link joiner.engine.Dialects}. Knows neither designs nor
 * connections.
 */
@NullMarked
package joiner.engine;

import org.jspecify.annotations.NullMarked;
