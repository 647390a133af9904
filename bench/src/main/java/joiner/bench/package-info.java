/** Measurements. Start at {@link joiner.bench.Scenarios}. Nothing here is a test. */
@NullMarked
package joiner.bench;

import org.jspecify.annotations.NullMarked;
