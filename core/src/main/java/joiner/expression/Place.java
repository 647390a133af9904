package joiner.expression;

/**
 * The place a part of an expression was read from. What stands elsewhere says the same, so all
 * places are equal: two expressions are equal when they mean the same, wherever they were read.
 */
public final class Place {
  /** Of parts that were not read but made. */
  public static final Place NOWHERE = new Place(new Span(0, 0));

  private final Span span;

  private Place(Span span) {
    this.span = span;
  }

  static Place at(int start, int end) {
    return new Place(new Span(start, end));
  }

  /** The characters of the text. */
  public Span span() {
    return span;
  }

  /** From the start of this to the end of the other. */
  Place to(Place other) {
    return new Place(new Span(span.start(), other.span.end()));
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Place;
  }

  @Override
  public int hashCode() {
    return 0;
  }

  @Override
  public String toString() {
    return span.start() + "–" + span.end();
  }
}
