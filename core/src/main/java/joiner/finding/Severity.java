package joiner.finding;

/** How much a finding matters. */
public enum Severity {
  /** A database would refuse it or data would be wrong. */
  ERROR("error"),
  /** Works, and will hurt. */
  WARNING("warning"),
  /** Worth a thought. */
  ADVICE("advice");

  private final String id;

  Severity(String id) {
    this.id = id;
  }

  /** The word used by the command line. */
  public String id() {
    return id;
  }
}
