/**
 * Small parts that several views are built from. Start at {@link joiner.desktop.widget.Parts}.
 * Knows no design.
 */
@NullMarked
package joiner.desktop.widget;

import org.jspecify.annotations.NullMarked;
