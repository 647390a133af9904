package joiner.engine;

import java.util.Optional;

/**
 * How an engine's catalog is asked for what JDBC's metadata does not say. Each query has one
 * parameter, the name of a table as it is stored.
 *
 * @param types gives name and type of each column as the engine spells it; empty: the metadata says
 *     it
 * @param checks gives name and condition of each check constraint; where {@code inStatement}, the
 *     text of the statement that made the table instead
 */
public record CatalogQueries(Optional<String> types, String checks, boolean inStatement) {}
