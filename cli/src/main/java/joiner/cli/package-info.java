/**
 * The command line for scripts and builds. Start at {@link joiner.cli.Main}. Exit codes: 0 fine, 1
 * the design or data has errors, 2 bad usage or unreadable input, 3 the target refused.
 */
@NullMarked
package joiner.cli;

import org.jspecify.annotations.NullMarked;
