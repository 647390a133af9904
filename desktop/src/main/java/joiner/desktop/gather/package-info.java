/** The stage Gather: files become tables. Start at {@link joiner.desktop.gather.GatherView}. */
@NullMarked
package joiner.desktop.gather;

import org.jspecify.annotations.NullMarked;
