package joiner.shape;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Puts a text right that a pattern refuses for its blanks, its case or the marks it lacks: "m 0048"
 * is "M-0048" where a pattern asks for a capital, a dash and four digits. Nothing else is guessed:
 * letters and digits stay as they are, in their order.
 */
public final class PutRight {
  private static final String OTHERS = "^[^\\p{L}\\p{N}]+";

  private PutRight() {}

  /** The text that is meant; the same where the pattern takes it, or nothing helps. */
  public static String of(String expression, String typed) {
    if (!(TextPattern.of(expression) instanceof TextPattern.Read.Understood(var pattern))
        || pattern.matches(typed)) {
      return typed;
    }
    String plain = typed.strip().replaceAll("\\s+", " ");
    Optional<List<PatternPart>> parts = PatternPart.read(expression);
    return Stream.of(plain, plain.toUpperCase(Locale.ROOT), plain.toLowerCase(Locale.ROOT))
        .flatMap(
            text ->
                Stream.concat(
                    Stream.of(text, text.replace(" ", "")),
                    parts.stream().map(of -> marked(text, of))))
        .filter(pattern::matches)
        .findFirst()
        .orElse(typed);
  }

  /** The letters and digits of a text with the fixed texts of the parts put between them. */
  private static String marked(String text, List<PatternPart> parts) {
    var marked = new StringBuilder();
    String rest = text;
    for (PatternPart part : parts) {
      if (part.what() instanceof PatternPart.What.Fixed(String mark)) {
        marked.append(mark);
        rest = past(mark, rest);
      } else {
        rest = rest.replaceFirst(OTHERS, "");
        int end = taken(rest, part);
        marked.append(rest, 0, end);
        rest = rest.substring(end);
      }
    }
    return marked + rest.strip();
  }

  /** A text behind the letters and digits of a mark, whatever else is between; else all of it. */
  private static String past(String mark, String text) {
    String rest = text;
    for (int point : mark.codePoints().filter(Character::isLetterOrDigit).toArray()) {
      rest = rest.replaceFirst(OTHERS, "");
      String letter = Character.toString(point);
      if (!rest.startsWith(letter)) {
        return text;
      }
      rest = rest.substring(letter.length());
    }
    return rest;
  }

  /** How much of a text one part takes. */
  private static int taken(String text, PatternPart part) {
    if (!(TextPattern.of(new PatternPart(part.what(), 1, Optional.of(1)).expression())
        instanceof TextPattern.Read.Understood(var one))) {
      return 0;
    }
    int end = 0;
    for (int times = 0;
        end < text.length() && part.most().orElse(Integer.MAX_VALUE) > times;
        times++) {
      int next = text.offsetByCodePoints(end, 1);
      if (!one.matches(text.substring(end, next))) {
        return end;
      }
      end = next;
    }
    return end;
  }
}
