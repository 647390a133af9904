package joiner.dependency;

/** Normal forms (Edgar Codd, 1971 and 1974; Ronald Fagin, 1977). */
public enum NormalForm {
  FIRST("1NF"),
  SECOND("2NF"),
  THIRD("3NF"),
  BOYCE_CODD("BCNF"),
  /** Decided where multivalued dependencies are given. */
  FOURTH("4NF");

  private final String words;

  NormalForm(String words) {
    this.words = words;
  }

  /** As it is written. */
  public String words() {
    return words;
  }
}
