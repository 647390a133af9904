package joiner.cli;

/** What a command tells the program that called it. */
final class ExitCode {
  static final int FINE = 0;
  static final int ERRORS = 1;
  static final int BAD_INPUT = 2;
  static final int REFUSED = 3;

  /** Joiner itself failed. */
  static final int FAILED = 4;

  private ExitCode() {}
}
