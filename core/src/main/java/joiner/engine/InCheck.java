package joiner.engine;

/** What a check may read besides plain columns, and some engines refuse. */
public enum InCheck {
  CLOCK("the clock"),
  COUNTER("a column that counts up"),
  MOVED_BY_REFERENCE("a column that a change of its parent changes"),
  LONG_TEXT("more of a text without a limit than its length or a pattern");

  private final String words;

  InCheck(String words) {
    this.words = words;
  }

  /** As people read it. */
  public String words() {
    return words;
  }
}
