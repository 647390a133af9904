package joiner;

import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Generated patterns in the syntax of RE2, and texts that some of them match. */
public final class RandomPatterns {
  private static final List<String> ATOMS =
      List.of(
          "a",
          "b",
          "K",
          "7",
          "-",
          "_",
          " ",
          "é",
          "🏺",
          "\\.",
          "\\[",
          "\\\\",
          "\\d",
          "\\D",
          "\\w",
          "\\W",
          "\\s",
          "\\S",
          ".",
          "[a-c]",
          "[^a]",
          "[A-Z]",
          "[]a]",
          "[a\\-z]",
          "[^\\s]",
          "[\\w.]",
          "[-a]",
          "[[:alpha:]]",
          "[[:^digit:]]",
          "[[:punct:]]",
          "\\x41",
          "\\x{e9}",
          "\\p{L}",
          "\\PL",
          "\\p{Lu}",
          "\\Qa.b\\E",
          "\\t",
          "\\n",
          "[\\t ]",
          "[é-ü]",
          "\\bx",
          "[^\\n]",
          "[&-+]",
          "[!-~]",
          "[\\^a]");

  private static final List<String> TIMES =
      List.of("", "", "", "", "*", "+", "?", "{2}", "{0,3}", "{1,}", "+?", "*?", "{300}");

  private static final String[] LETTERS = {
    "a", "b", "c", "K", "k", "\u212A", "A", "Z", "7", "٣", "-", "_", " ", "é", "É", "ü", "🏺", ".",
    "[", "]", "\\", "\t", "\n", "\r", "\u0085", "x", "^", "&", "!", "~", "'"
  };

  private final Random random;

  /** Patterns of that seed. */
  public RandomPatterns(long seed) {
    this.random = new Random(seed);
  }

  /** A pattern. */
  public String next() {
    String flags =
        random.nextInt(6) == 0 ? List.of("(?i)", "(?s)", "(?is)").get(random.nextInt(3)) : "";
    String begin = random.nextInt(8) == 0 ? "^" : "";
    String end = random.nextInt(8) == 0 ? "$" : "";
    return flags + begin + choice(2) + end;
  }

  private String choice(int depth) {
    int branches = random.nextInt(5) == 0 ? 2 : 1;
    return IntStream.range(0, branches)
        .mapToObj(i -> sequence(depth))
        .collect(Collectors.joining("|"));
  }

  private String sequence(int depth) {
    var parts = new StringBuilder();
    for (int i = random.nextInt(4); i >= 0; i--) {
      boolean group = depth > 0 && random.nextInt(5) == 0;
      parts.append(
          group
              ? List.of("(", "(?:", "(?P<n" + random.nextInt(1_000_000) + ">", "(?i:")
                      .get(random.nextInt(4))
                  + choice(depth - 1)
                  + ")"
              : ATOMS.get(random.nextInt(ATOMS.size())));
      parts.append(TIMES.get(random.nextInt(TIMES.size())));
    }
    return parts.toString();
  }

  /** A short text. */
  public String text() {
    return IntStream.range(0, random.nextInt(5))
        .mapToObj(i -> LETTERS[random.nextInt(LETTERS.length)])
        .collect(Collectors.joining());
  }
}
