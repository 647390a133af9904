/**
 * SQL search conditions and value expressions over a row's own fields: read, type-checked,
 * evaluated with three-valued logic, printed. Start at {@link joiner.expression.Formula}. Knows the
 * design's field types and nothing of engines.
 */
@NullMarked
package joiner.expression;

import org.jspecify.annotations.NullMarked;
