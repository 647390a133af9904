package joiner.engine;

import java.time.Clock;
import java.util.function.UnaryOperator;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Expression.Function;
import joiner.expression.Value;

/** Expressions for PostgreSQL. */
final class PostgreSqlText extends IsoText {
  PostgreSqlText(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  @Override
  protected String literal(Value value) {
    return value instanceof Value.Bytes bytes
        ? "'\\x" + bytes.hex() + "'::bytea"
        : super.literal(value);
  }

  /** Where no column is read nothing says by which locale letters are changed: they are here. */
  @Override
  protected String call(Expression.Call e) {
    boolean changed = e.function() == Function.UPPER || e.function() == Function.LOWER;
    return changed && e.reads().isEmpty() && !e.readsClock()
        ? literal(new Evaluator(Clock.systemUTC()).evaluate(e, reference -> Value.NULL))
        : super.call(e);
  }

  /** Texts would be put in the order of the database's locale. */
  @Override
  protected String codePoints(Expression text) {
    return "(" + write(text) + ") COLLATE \"C\"";
  }
}
