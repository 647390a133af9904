package joiner.shape;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A pattern proposed from examples: what stands in the same places of most of them.
 *
 * @param parts one behind the other
 * @param unfit the examples that do not have it, in their order
 */
public record PatternExamples(List<PatternPart> parts, List<String> unfit) {
  public PatternExamples {
    parts = List.copyOf(parts);
    unfit = List.copyOf(unfit);
  }

  /** A run of characters of one kind; of others each by itself. */
  private record Run(Optional<PartKind> kind, String text) {
    /** What runs have in common that stand in the same place. */
    Object shape() {
      return kind.<Object>map(k -> k).orElse(text);
    }
  }

  /**
   * The pattern that most of some examples have; empty where there is none, or they have nothing in
   * common but to be texts. Linear in their length.
   */
  public static Optional<PatternExamples> of(List<String> examples) {
    List<String> texts =
        examples.stream().map(String::strip).filter(text -> !text.isEmpty()).toList();
    Map<List<Object>, List<List<Run>>> byShape = new LinkedHashMap<>();
    for (String text : texts) {
      List<Run> runs = runs(text);
      byShape
          .computeIfAbsent(runs.stream().map(Run::shape).toList(), s -> new ArrayList<>())
          .add(runs);
    }
    Optional<List<List<Run>>> most =
        byShape.values().stream().max(Comparator.comparingInt(List::size));
    if (most.isEmpty() || most.get().size() * 2 <= texts.size()) {
      return Optional.empty();
    }
    List<PatternPart> parts = parts(most.get());
    if (areWords(parts)) {
      return Optional.empty();
    }
    String expression = PatternPart.expression(parts);
    return TextPattern.of(expression) instanceof TextPattern.Read.Understood(var pattern)
        ? Optional.of(
            new PatternExamples(
                parts, texts.stream().filter(text -> !pattern.matches(text)).toList()))
        : Optional.empty();
  }

  /** Whether they are no more than letters, some more, some fewer, as words have them. */
  private static boolean areWords(List<PatternPart> parts) {
    boolean loose = parts.stream().anyMatch(part -> !part.most().equals(Optional.of(part.least())));
    return loose
        && parts.stream()
            .noneMatch(
                part ->
                    switch (part.what()) {
                      case PatternPart.What.OfKind(PartKind kind) -> kind == PartKind.DIGIT;
                      case PatternPart.What.AnyOf some -> true;
                      case PatternPart.What.OneOf some -> true;
                      case PatternPart.What.Fixed(String text) -> !text.isBlank();
                    });
  }

  /** The pattern as an expression. */
  public String expression() {
    return PatternPart.expression(parts);
  }

  private static List<Run> runs(String text) {
    var runs = new ArrayList<Run>();
    int[] points = text.codePoints().toArray();
    int at = 0;
    while (at < points.length) {
      Optional<PartKind> kind = kind(points[at]);
      int end = at + 1;
      while (kind.isPresent() && end < points.length && kind(points[end]).equals(kind)) {
        end++;
      }
      runs.add(new Run(kind, new String(points, at, end - at)));
      at = end;
    }
    return runs;
  }

  private static Optional<PartKind> kind(int point) {
    if (point >= '0' && point <= '9') {
      return Optional.of(PartKind.DIGIT);
    }
    if (point >= 'A' && point <= 'Z') {
      return Optional.of(PartKind.CAPITAL);
    }
    return point >= 'a' && point <= 'z' ? Optional.of(PartKind.SMALL) : Optional.empty();
  }

  /** Letters that are always the same are fixed; digits count, so they are not. */
  private static List<PatternPart> parts(List<List<Run>> alike) {
    var parts = new ArrayList<PatternPart>();
    for (int place = 0; place < alike.getFirst().size(); place++) {
      int at = place;
      List<String> texts =
          alike.stream().map(runs -> runs.get(at).text()).distinct().collect(Collectors.toList());
      Optional<PartKind> kind = alike.getFirst().get(place).kind();
      boolean same = texts.size() == 1 && (alike.size() > 1 || kind.isEmpty());
      if (kind.isEmpty() || same && kind.get() != PartKind.DIGIT) {
        addFixed(texts.getFirst(), parts);
      } else {
        int least = texts.stream().mapToInt(String::length).min().orElse(1);
        int most = texts.stream().mapToInt(String::length).max().orElse(1);
        parts.add(
            new PatternPart(new PatternPart.What.OfKind(kind.get()), least, Optional.of(most)));
      }
    }
    return parts;
  }

  private static void addFixed(String text, List<PatternPart> parts) {
    boolean after = !parts.isEmpty() && parts.getLast().what() instanceof PatternPart.What.Fixed;
    String before = after ? ((PatternPart.What.Fixed) parts.removeLast().what()).text() : "";
    parts.add(PatternPart.fixed(before + text));
  }
}
