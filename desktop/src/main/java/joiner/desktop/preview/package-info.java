/**
 * A change shown before it is made, over any stage. Start at {@link
 * joiner.desktop.preview.PreviewView}.
 */
@NullMarked
package joiner.desktop.preview;

import org.jspecify.annotations.NullMarked;
