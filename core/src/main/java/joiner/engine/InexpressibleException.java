package joiner.engine;

/** An engine has no way to say something; the message is the reason, without a full stop. */
final class InexpressibleException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  InexpressibleException(String reason) {
    super(reason);
  }
}
