package joiner.catalog;

import java.util.Optional;
import joiner.expression.Expression;

/**
 * An expression as an engine writes it.
 *
 * @param sql its text in the engine's spelling
 * @param meaning what it says; empty where that is not known, as of an expression that was found
 * @param varies whether it has another value each time it is asked for
 */
public record SqlExpression(String sql, Optional<Expression> meaning, boolean varies) {
  /** An expression that has one value. */
  public SqlExpression(String sql, Optional<Expression> meaning) {
    this(sql, meaning, false);
  }

  /** An expression with another value each time. */
  public static SqlExpression varying(String sql) {
    return new SqlExpression(sql, Optional.empty(), true);
  }

  /** An expression that was found in a database. */
  public static SqlExpression found(String sql) {
    return new SqlExpression(sql, Optional.empty());
  }

  /** Whether it is a value written out, or the present day, rather than something computed. */
  public boolean isLiteral() {
    return meaning.map(SqlExpression::isLiteral).orElse(false);
  }

  private static boolean isLiteral(Expression tree) {
    return switch (tree) {
      case Expression.Literal e -> true;
      case Expression.Negate e -> isLiteral(e.operand());
      case Expression.Fitting e -> isLiteral(e.operand());
      case Expression.Now e -> e.kind() == joiner.expression.Kind.DATE;
      default -> false;
    };
  }
}
