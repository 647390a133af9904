package joiner.engine;

import java.util.Optional;

/**
 * How an engine's catalog is asked for what JDBC's metadata does not say, or not rightly. Each
 * query has one parameter, the name of a table as it is stored. Where there is no query, the
 * metadata say it.
 *
 * @param types gives name and type of each column as the engine spells it
 * @param primaryKey gives the columns of the primary key in order
 * @param references gives for each column of a foreign key, in order, which key it belongs to, its
 *     name, the parent's table, the parent's column, and the words for delete and update
 * @param indexes gives for each column of a unique key or an index, in order, the name of the key
 *     or index, whether it is unique, and the column
 * @param checks gives name and condition of each check constraint; where {@code inStatement}, the
 *     text of the statement that made the table instead
 */
public record CatalogQueries(
    Optional<String> types,
    Optional<String> primaryKey,
    Optional<String> references,
    Optional<String> indexes,
    String checks,
    boolean inStatement) {

  /** Only checks have to be asked for. */
  static CatalogQueries ofChecks(String checks) {
    return new CatalogQueries(
        Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), checks, false);
  }
}
