/**
 * The theory of functional dependencies, exact and independent of any data: closures, keys, covers,
 * normal forms, decompositions with their proofs. Start at {@link joiner.dependency.Scheme}. Knows
 * nothing else.
 */
@NullMarked
package joiner.dependency;

import org.jspecify.annotations.NullMarked;
