package joiner.catalog;

/**
 * A source of numbers, each greater by one than the one before.
 *
 * @param start the first of them
 */
public record Sequence(String name, long start) {}
