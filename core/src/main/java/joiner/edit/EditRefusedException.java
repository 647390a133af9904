package joiner.edit;

/** A change that cannot be made; the message says why and what to do instead. */
public final class EditRefusedException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public EditRefusedException(String message) {
    super(message);
  }
}
