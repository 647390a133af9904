package joiner.shape;

import java.util.random.RandomGenerator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Short texts that nobody guesses, drawn by chance.
 *
 * @param alphabet at least two different characters
 * @param length how many are drawn, 1 to 64
 */
public record RandomCode(String alphabet, int length) {
  /** Capitals and digits that nobody takes for each other: no 0 and O, no 1, I and L. */
  public static final String PLAIN = "23456789ABCDEFGHJKMNPQRSTUVWXYZ";

  private static final int LONGEST = 64;

  public RandomCode {
    if (alphabet.length() < 2 || alphabet.chars().distinct().count() < alphabet.length()) {
      throw new IllegalArgumentException(
          "The characters of a random code are at least two, and no two the same.");
    }
    if (alphabet.chars().anyMatch(c -> Character.isSurrogate((char) c))) {
      throw new IllegalArgumentException("Characters beyond U+FFFF are not drawn.");
    }
    if (length < 1 || length > LONGEST) {
      throw new IllegalArgumentException("A random code has 1 to " + LONGEST + " characters.");
    }
  }

  /** The pattern that all such codes have. */
  public String pattern() {
    String characters =
        alphabet
            .chars()
            .mapToObj(c -> ("\\^-[]".indexOf(c) < 0 ? "" : "\\") + (char) c)
            .collect(Collectors.joining());
    return "[" + characters + "]{" + length + "}";
  }

  /** Draws one. */
  public String drawn(RandomGenerator chance) {
    return IntStream.range(0, length)
        .mapToObj(i -> String.valueOf(alphabet.charAt(chance.nextInt(alphabet.length()))))
        .collect(Collectors.joining());
  }

  /**
   * How likely it is that two of so many codes are the same, as the birthday problem has it: 1 −
   * exp(−n (n − 1) / 2N), where N is how many codes there are.
   */
  public double clash(long rows) {
    double all = Math.pow(alphabet.length(), length);
    return -Math.expm1(-(double) rows * (rows - 1) / (2 * all));
  }

  /** The shortest such code with which a clash among so many rows is no likelier than that. */
  public static RandomCode against(String alphabet, long rows, double chance) {
    int length = 1;
    while (length < LONGEST && new RandomCode(alphabet, length).clash(rows) > chance) {
      length++;
    }
    return new RandomCode(alphabet, length);
  }
}
