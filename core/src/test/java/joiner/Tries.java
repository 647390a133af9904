package joiner;

import java.util.Random;
import java.util.stream.LongStream;

/**
 * How often a law over generated cases is tried. Profiles set the system property {@code
 * joiner.tries} to a factor.
 */
public final class Tries {
  private Tries() {}

  /**
   * Seeds for so many cases, or that many times the factor; fixed, so that a failure comes back.
   */
  public static LongStream of(int usual) {
    return new Random(20260314).longs(Math.max(1, Math.round(usual * factor())));
  }

  /** What is found in so many of the usual cases is found in as many of fewer. */
  public static int least(int usual) {
    return (int) (usual * Math.min(1, factor()));
  }

  /** How many times the usual number of cases are tried. */
  public static double factor() {
    return Double.parseDouble(System.getProperty("joiner.tries", "1"));
  }
}
