/** The stage Guard: the rules of a table. Start at {@link joiner.desktop.guard.GuardView}. */
@NullMarked
package joiner.desktop.guard;

import org.jspecify.annotations.NullMarked;
