/**
 * A physical schema in words that depend on no engine: what a script promises, and what a database
 * is found to hold. Start at {@link joiner.catalog.Catalog}. Knows neither statements nor
 * connections.
 */
@NullMarked
package joiner.catalog;

import org.jspecify.annotations.NullMarked;
