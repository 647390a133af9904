package joiner.expression;

/**
 * A row's values cannot be computed with, as when they divide by zero; an engine would refuse the
 * row.
 */
public final class EvaluationException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public EvaluationException(String message) {
    super(message);
  }
}
