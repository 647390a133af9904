/**
 * Names: from what people read to what a database gets, and what each engine allows. Start at
 * {@link joiner.naming.NamingPolicy} and {@link joiner.naming.IdentifierRules}. Knows nothing else.
 */
@NullMarked
package joiner.naming;

import org.jspecify.annotations.NullMarked;
