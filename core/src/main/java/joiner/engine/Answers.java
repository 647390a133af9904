package joiner.engine;

import joiner.catalog.SqlExpression;

/** What an engine itself is asked about expressions, for it shows them in other words. */
@FunctionalInterface
public interface Answers {
  /** Whether two expressions without columns have one value. */
  boolean haveOneValue(SqlExpression promised, SqlExpression found);

  /** A condition in the words in which the engine's catalog shows it. */
  default String worded(SqlExpression condition) {
    return condition.sql();
  }
}
