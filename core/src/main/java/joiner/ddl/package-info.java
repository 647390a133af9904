/**
 * Schema scripts: one class per engine holding only what is its own, and a table of what each
 * engine can enforce and how. Start at {@link joiner.ddl.SchemaScript} and {@link
 * joiner.engine.Dialects}. Knows no connections.
 */
@NullMarked
package joiner.ddl;

import org.jspecify.annotations.NullMarked;
