/**
 * Design checks: one class a check, each saying what is wrong, why it matters and how to put it
 * right by an ordinary edit. Start at {@link joiner.finding.DesignChecks}. Knows no screens and no
 * engines beyond their rules for names.
 */
@NullMarked
package joiner.finding;

import org.jspecify.annotations.NullMarked;
