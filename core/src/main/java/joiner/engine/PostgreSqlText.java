package joiner.engine;

import java.util.function.UnaryOperator;
import joiner.expression.Expression;
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

  /** Texts would be put in the order of the database's locale. */
  @Override
  protected String codePoints(Expression text) {
    return "(" + write(text) + ") COLLATE \"C\"";
  }
}
