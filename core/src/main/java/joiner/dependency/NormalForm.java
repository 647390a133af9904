package joiner.dependency;

/** Normal forms as far as functional dependencies decide them (Edgar Codd, 1971 and 1974). */
public enum NormalForm {
  FIRST("1NF"),
  SECOND("2NF"),
  THIRD("3NF"),
  BOYCE_CODD("BCNF");

  private final String words;

  NormalForm(String words) {
    this.words = words;
  }

  /** As it is written. */
  public String words() {
    return words;
  }
}
