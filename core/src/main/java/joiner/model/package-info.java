/**
 * The immutable design: what a user models, as values with stable ids. Start at {@link
 * joiner.model.Design}. Knows nothing of screens, SQL text or files.
 */
@NullMarked
package joiner.model;

import org.jspecify.annotations.NullMarked;
