package joiner.model;

/** How many rows stand at the other end of a relationship, as a reading says it. */
public enum Quantity {
  EXACTLY_ONE("exactly one", false),
  AT_MOST_ONE("at most one", false),
  ONE_OR_MANY("one or many", true),
  ANY_NUMBER("any number of", true);

  private final String words;
  private final boolean plural;

  Quantity(String words, boolean plural) {
    this.words = words;
    this.plural = plural;
  }

  /** The words in the sentence. */
  public String words() {
    return words;
  }

  /** Whether a plural noun follows. */
  public boolean isPlural() {
    return plural;
  }
}
