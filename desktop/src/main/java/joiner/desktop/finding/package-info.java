/**
 * Findings and their remedies as cards, for any stage. Start at {@link
 * joiner.desktop.finding.FindingCards}.
 */
@NullMarked
package joiner.desktop.finding;

import org.jspecify.annotations.NullMarked;
