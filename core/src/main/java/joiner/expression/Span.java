package joiner.expression;

/**
 * Characters of a text.
 *
 * @param start first character, from 0
 * @param end after the last character
 */
public record Span(int start, int end) {}
