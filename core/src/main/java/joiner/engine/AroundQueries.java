package joiner.engine;

import java.util.Optional;

/**
 * How an engine's catalog is asked for what stands around the tables of the current schema. Where
 * there is no query, nobody asks.
 *
 * @param views gives name, whether rows are kept, and the statement that makes it
 * @param triggers gives name, table, timing, events with something between, and the statement
 * @param exclusions gives name, table, whether it is an index, and the statement
 * @param generated gives table, column, expression, and whether it is stored; where {@code
 *     generatedInStatement}, the statements that made the tables instead
 * @param grants gives to whom as it stands in SQL, the privilege, on which table, and whether it
 *     may be passed on
 */
public record AroundQueries(
    Optional<String> views,
    Optional<String> triggers,
    Optional<String> exclusions,
    Optional<String> generated,
    Optional<String> grants,
    boolean generatedInStatement) {
  /** Nobody asks. */
  static final AroundQueries NONE =
      new AroundQueries(
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          false);
}
