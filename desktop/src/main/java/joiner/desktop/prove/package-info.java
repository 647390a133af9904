/**
 * The stage Prove: the audit of the sample rows. Start at {@link joiner.desktop.prove.ProveView}.
 */
@NullMarked
package joiner.desktop.prove;

import org.jspecify.annotations.NullMarked;
