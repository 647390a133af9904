package joiner.engine;

import java.util.function.UnaryOperator;
import joiner.expression.Expression;

/** Expressions for PostgreSQL. */
final class PostgreSqlText extends IsoText {
  PostgreSqlText(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  /** Texts would be put in the order of the database's locale. */
  @Override
  protected String codePoints(Expression text) {
    return "(" + write(text) + ") COLLATE \"C\"";
  }
}
