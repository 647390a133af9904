/**
 * Colours, fonts and the style sheet. Start at {@link joiner.desktop.theme.Theme}. Knows no view.
 */
@NullMarked
package joiner.desktop.theme;

import org.jspecify.annotations.NullMarked;
