/**
 * The window around the stages: strip, table list, side sheet, status line, finder. Start at {@link
 * joiner.desktop.frame.Frame}.
 */
@NullMarked
package joiner.desktop.frame;

import org.jspecify.annotations.NullMarked;
