package joiner.catalog;

/**
 * A query with a name.
 *
 * @param stored whether its rows are kept until it is refreshed
 * @param definition the statement that makes it, in the engine's spelling
 */
public record View(String name, boolean stored, String definition) {}
