/**
 * The open design as all views see it: history, selection, findings, audit. Start at {@link
 * joiner.desktop.work.Workbench}. Knows no scene.
 */
@NullMarked
package joiner.desktop.work;

import org.jspecify.annotations.NullMarked;
