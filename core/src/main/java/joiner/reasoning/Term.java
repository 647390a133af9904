package joiner.reasoning;

import com.microsoft.z3.BoolExpr;
import com.microsoft.z3.Expr;

/**
 * An SQL expression as the solver has it. SQL's three truth values are two: whether there is a
 * value, and which; what cannot be computed, as a division by zero, is a third thing, for then a
 * row is refused whatever else holds.
 *
 * @param isNull whether it has no value
 * @param value its value; says nothing where it has none
 * @param fails whether working it out fails
 */
record Term(BoolExpr isNull, Expr<?> value, BoolExpr fails) {
  /** The value of a condition. */
  BoolExpr truth() {
    return (BoolExpr) value;
  }
}
