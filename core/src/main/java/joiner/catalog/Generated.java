package joiner.catalog;

/**
 * How the engine computes a column from others of its row.
 *
 * @param sql the expression in the engine's spelling
 * @param stored whether it is computed when the row is written, rather than when it is read
 */
public record Generated(String sql, boolean stored) {}
