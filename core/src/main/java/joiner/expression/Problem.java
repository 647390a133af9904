package joiner.expression;

/**
 * What is wrong with an expression.
 *
 * @param span the characters it is about
 * @param message a sentence that says what was found, what is allowed and what to do
 */
public record Problem(Span span, String message) {}
