package joiner.expression;

/** Leaves the parser at the first error; never seen outside the package. */
final class ParseFailure extends RuntimeException {
  private final transient Problem problem;

  ParseFailure(Place place, String message) {
    super(message, null, false, false);
    this.problem = new Problem(place.span(), message);
  }

  Problem problem() {
    return problem;
  }
}
