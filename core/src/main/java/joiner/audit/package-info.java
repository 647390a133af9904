/**
 * Rows against the design: what in them a database that keeps the design would refuse. Start at
 * {@link joiner.audit.Audit}. Knows no engines and no files.
 */
@NullMarked
package joiner.audit;

import org.jspecify.annotations.NullMarked;
