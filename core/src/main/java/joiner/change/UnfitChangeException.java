package joiner.change;

/** A change was to be made to something that is not as the change found it; nothing was changed. */
public final class UnfitChangeException extends RuntimeException {
  private static final long serialVersionUID = 1;

  UnfitChangeException(String message) {
    super(message);
  }
}
