package joiner.expression;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A LIKE pattern: % is any text, _ any one character, the escape character takes the next one
 * literally. Works on code points.
 *
 * @param parts the pattern cut into single steps
 */
public record LikePattern(List<Part> parts) {
  /** One step of a pattern. */
  public sealed interface Part {
    /** Any text, also none. */
    record AnyText() implements Part {}

    /** Any one character. */
    record AnyOne() implements Part {}

    /** Exactly this code point. */
    record Exactly(int codePoint) implements Part {}
  }

  public LikePattern {
    parts = List.copyOf(parts);
  }

  /**
   * Reads a pattern.
   *
   * @throws EvaluationException if the escape character stands before nothing it may escape
   */
  public static LikePattern of(String pattern, Optional<Character> escape) {
    var parts = new ArrayList<Part>();
    int[] points = pattern.codePoints().toArray();
    for (int i = 0; i < points.length; i++) {
      int point = points[i];
      if (escape.isPresent() && point == escape.get()) {
        boolean escapable =
            i + 1 < points.length
                && (points[i + 1] == '%' || points[i + 1] == '_' || points[i + 1] == point);
        if (!escapable) {
          throw new EvaluationException(
              "the escape character of LIKE stands before nothing it may escape");
        }
        parts.add(new Part.Exactly(points[++i]));
      } else if (point == '%') {
        parts.add(new Part.AnyText());
      } else if (point == '_') {
        parts.add(new Part.AnyOne());
      } else {
        parts.add(new Part.Exactly(point));
      }
    }
    return new LikePattern(parts);
  }

  /**
   * Whether the whole text fits; greedy with one point to come back to, O(text · pattern) at worst.
   */
  public boolean matches(String text) {
    int[] points = text.codePoints().toArray();
    int t = 0;
    int p = 0;
    int backPart = -1;
    int backText = 0;
    while (t < points.length) {
      if (p < parts.size() && parts.get(p) instanceof Part.AnyText) {
        backPart = p++;
        backText = t;
      } else if (p < parts.size() && fits(parts.get(p), points[t])) {
        p++;
        t++;
      } else if (backPart >= 0) {
        p = backPart + 1;
        t = ++backText;
      } else {
        return false;
      }
    }
    while (p < parts.size() && parts.get(p) instanceof Part.AnyText) {
      p++;
    }
    return p == parts.size();
  }

  private static boolean fits(Part part, int point) {
    return switch (part) {
      case Part.AnyOne one -> true;
      case Part.Exactly exactly -> exactly.codePoint() == point;
      case Part.AnyText any -> false;
    };
  }
}
