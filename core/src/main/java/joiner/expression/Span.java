package joiner.expression;

/**
 * Where a piece of an expression stands in its text.
 *
 * @param start first character, from 0
 * @param end after the last character
 */
public record Span(int start, int end) {
  /** From the start of this to the end of the other. */
  public Span to(Span other) {
    return new Span(start, other.end);
  }
}
