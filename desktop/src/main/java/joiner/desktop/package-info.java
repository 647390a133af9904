/** The window. Start at {@link joiner.desktop.Main}. */
@NullMarked
package joiner.desktop;

import org.jspecify.annotations.NullMarked;
