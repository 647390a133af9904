package joiner.shape;

import java.util.List;
import java.util.Optional;

/**
 * The fixed texts of a pattern, and the texts without them: "98-765" is "98765" where a pattern
 * asks for two digits, a dash and three digits. Each text has just one without marks, and back: of
 * the parts between the marks at most one may differ in length.
 */
public final class Marks {
  private final List<Part> parts;
  private final TextPattern whole;
  private final TextPattern bare;
  private final String bareExpression;

  /**
   * One part.
   *
   * @param mark its text, where it is one of the marks
   * @param length how many code points it has; empty where that differs
   */
  private record Part(Optional<String> mark, Optional<Integer> length) {}

  /** What a pattern's marks are. */
  public sealed interface Found {
    /** They can be left out and put back. */
    record Parted(Marks marks) implements Found {}

    /** They cannot. */
    record None(String why) implements Found {}
  }

  private Marks(List<Part> parts, TextPattern whole, TextPattern bare, String bareExpression) {
    this.parts = List.copyOf(parts);
    this.whole = whole;
    this.bare = bare;
    this.bareExpression = bareExpression;
  }

  /** The marks of a pattern, or a sentence why there are none to leave out. */
  public static Found of(String expression) {
    Optional<List<PatternPart>> read = PatternPart.read(expression);
    if (read.isEmpty()) {
      return new Found.None("The pattern is not made of parts one behind the other.");
    }
    List<Part> parts = read.get().stream().map(Marks::part).toList();
    List<PatternPart> between =
        read.get().stream().filter(part -> part(part).mark.isEmpty()).toList();
    if (between.size() == parts.size() || between.isEmpty()) {
      return new Found.None(
          between.isEmpty()
              ? "The pattern is one fixed text, without which nothing is left."
              : "No fixed text stands in the pattern.");
    }
    if (parts.stream().filter(part -> part.length.isEmpty()).count() > 1) {
      return new Found.None(
          "Two of its parts may be of several lengths, so that nobody could tell where a mark"
              + " belongs.");
    }
    String bare = PatternPart.expression(between);
    return TextPattern.of(expression) instanceof TextPattern.Read.Understood(var whole)
            && TextPattern.of(bare) instanceof TextPattern.Read.Understood(var rest)
        ? new Found.Parted(new Marks(parts, whole, rest, bare))
        : new Found.None("The pattern cannot be read.");
  }

  /** The marks of a pattern of which it is known that they can be left out. */
  public static Optional<Marks> parted(String expression) {
    return of(expression) instanceof Found.Parted(var marks)
        ? Optional.of(marks)
        : Optional.empty();
  }

  private static Part part(PatternPart part) {
    boolean fixed = part.most().equals(Optional.of(part.least()));
    return switch (part.what()) {
      case PatternPart.What.Fixed(String text) when fixed && part.least() == 1 ->
          new Part(Optional.of(text), Optional.of(points(text)));
      case PatternPart.What.Fixed(String text) ->
          new Part(Optional.empty(), length(points(text), fixed, part.least()));
      case PatternPart.What.OfKind kind ->
          new Part(Optional.empty(), length(1, fixed, part.least()));
      case PatternPart.What.AnyOf any -> new Part(Optional.empty(), length(1, fixed, part.least()));
      case PatternPart.What.OneOf(List<String> texts) -> {
        List<Integer> lengths = texts.stream().map(Marks::points).distinct().toList();
        yield new Part(
            Optional.empty(),
            lengths.size() == 1
                ? length(lengths.getFirst(), fixed, part.least())
                : Optional.empty());
      }
    };
  }

  private static Optional<Integer> length(int each, boolean fixed, int times) {
    return fixed ? Optional.of(each * times) : Optional.empty();
  }

  private static int points(String text) {
    return text.codePointCount(0, text.length());
  }

  /** The pattern of the texts without their marks. */
  public String bareExpression() {
    return bareExpression;
  }

  /** A text that has the whole pattern, without its marks; any other as it is. */
  public String without(String text) {
    if (!whole.matches(text)) {
      return text;
    }
    var rest = new StringBuilder();
    int open = points(text) - known(parts);
    int at = 0;
    for (Part part : parts) {
      int end = text.offsetByCodePoints(at, part.length.orElse(open));
      if (part.mark.isEmpty()) {
        rest.append(text, at, end);
      }
      at = end;
    }
    return rest.toString();
  }

  /** A text that has the pattern without marks, with them; any other as it is. */
  public String with(String text) {
    if (!bare.matches(text)) {
      return text;
    }
    var marked = new StringBuilder();
    int open = points(text) - known(parts.stream().filter(p -> p.mark.isEmpty()).toList());
    int at = 0;
    for (Part part : parts) {
      if (part.mark.isPresent()) {
        marked.append(part.mark.get());
      } else {
        int end = text.offsetByCodePoints(at, part.length.orElse(open));
        marked.append(text, at, end);
        at = end;
      }
    }
    return marked.toString();
  }

  /** How many code points the parts have whose length is known. */
  private static int known(List<Part> parts) {
    return parts.stream().mapToInt(part -> part.length.orElse(0)).sum();
  }
}
