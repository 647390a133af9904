package joiner.shape;

import com.ibm.icu.text.UnicodeSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A part of a pattern as people put it together, and how often it comes.
 *
 * @param what characters of a kind, any of some, a fixed text or one of several
 * @param least how often it comes at least
 * @param most how often at most; empty: without end
 */
public record PatternPart(What what, int least, Optional<Integer> most) {
  private static final String META = "\\.^$*+?()[]{}|&";

  public PatternPart {
    if (least < 0 || most.filter(m -> m < least || m < 1).isPresent()) {
      throw new IllegalArgumentException(
          "a part comes " + least + " to " + most + " times, which is never");
    }
  }

  /** What a part is. */
  public sealed interface What {
    /** Characters of a kind. */
    record OfKind(PartKind kind) implements What {}

    /** One of those characters; at least two. */
    record AnyOf(String characters) implements What {}

    /** One of those texts; at least two, none of them empty. */
    record OneOf(List<String> texts) implements What {
      public OneOf {
        texts = List.copyOf(texts);
        if (texts.size() < 2 || texts.contains("")) {
          throw new IllegalArgumentException("one of " + texts + " is no choice");
        }
      }
    }

    /** That very text. */
    record Fixed(String text) implements What {}
  }

  /** A part that comes so many times. */
  public static PatternPart of(PartKind kind, int times) {
    return new PatternPart(new What.OfKind(kind), times, Optional.of(times));
  }

  /** A text that comes once. */
  public static PatternPart fixed(String text) {
    return new PatternPart(new What.Fixed(text), 1, Optional.of(1));
  }

  /** The expression of parts one behind the other. */
  public static String expression(List<PatternPart> parts) {
    return parts.stream().map(PatternPart::expression).collect(Collectors.joining());
  }

  /**
   * An expression as parts one behind the other; empty where it is refused or says more than they
   * can.
   */
  public static Optional<List<PatternPart>> read(String expression) {
    return TextPattern.of(expression) instanceof TextPattern.Read.Understood(var pattern)
        ? pattern.tree().flatMap(PatternPart::of)
        : Optional.empty();
  }

  private static Optional<List<PatternPart>> of(PatternTree tree) {
    List<PatternTree> trees =
        tree instanceof PatternTree.Sequence sequence ? sequence.parts() : List.of(tree);
    var parts = new ArrayList<PatternPart>();
    for (PatternTree each : trees) {
      Optional<PatternPart> part = one(each);
      if (part.isEmpty()) {
        return Optional.empty();
      }
      add(part.get(), parts);
    }
    return Optional.of(parts);
  }

  /** Fixed texts that come once, one behind the other, are one. */
  private static void add(PatternPart part, List<PatternPart> parts) {
    boolean joins = !parts.isEmpty() && parts.getLast().isFixedOnce() && part.isFixedOnce();
    if (joins) {
      String before = ((What.Fixed) parts.removeLast().what).text();
      parts.add(fixed(before + ((What.Fixed) part.what).text()));
    } else {
      parts.add(part);
    }
  }

  private boolean isFixedOnce() {
    return what instanceof What.Fixed && least == 1 && most.equals(Optional.of(1));
  }

  private static Optional<PatternPart> one(PatternTree tree) {
    return switch (tree) {
      case PatternTree.One one ->
          what(one.set()).map(what -> new PatternPart(what, 1, Optional.of(1)));
      case PatternTree.Repeat(PatternTree.One one, int least, Optional<Integer> most)
          when most.filter(m -> m < 1).isEmpty() ->
          what(one.set()).map(what -> new PatternPart(what, least, most));
      case PatternTree.Repeat(PatternTree.Sequence s, int least, Optional<Integer> most)
          when most.filter(m -> m < 1).isEmpty() ->
          text(s).map(text -> new PatternPart(new What.Fixed(text), least, most));
      case PatternTree.Repeat(PatternTree.Choice choice, int least, Optional<Integer> most)
          when most.filter(m -> m < 1).isEmpty() ->
          oneOf(choice).map(what -> new PatternPart(what, least, most));
      case PatternTree.Repeat repeat -> Optional.empty();
      case PatternTree.Having having -> Optional.empty();
      case PatternTree.Sequence sequence -> Optional.empty();
      case PatternTree.Choice choice ->
          oneOf(choice).map(what -> new PatternPart(what, 1, Optional.of(1)));
    };
  }

  /** Texts to choose from; a branch that is more than a text, or nothing, is none. */
  private static Optional<What> oneOf(PatternTree.Choice choice) {
    List<String> texts =
        choice.branches().stream()
            .flatMap(
                branch ->
                    text(
                        branch instanceof PatternTree.Sequence s
                            ? s
                            : new PatternTree.Sequence(List.of(branch)))
                        .stream())
            .toList();
    return texts.size() == choice.branches().size() && texts.size() > 1
        ? Optional.of(new What.OneOf(texts))
        : Optional.empty();
  }

  private static Optional<String> text(PatternTree.Sequence sequence) {
    var text = new StringBuilder();
    for (PatternTree part : sequence.parts()) {
      if (!(part instanceof PatternTree.One one) || one.set().size() != 1) {
        return Optional.empty();
      }
      text.appendCodePoint(one.set().charAt(0));
    }
    return text.isEmpty() ? Optional.empty() : Optional.of(text.toString());
  }

  private static Optional<What> what(UnicodeSet set) {
    if (set.size() == 1) {
      return Optional.of(new What.Fixed(Character.toString(set.charAt(0))));
    }
    Optional<What> kind = PartKind.of(set).map(What.OfKind::new);
    if (kind.isPresent() || set.size() > 64 || set.isEmpty()) {
      return kind;
    }
    var characters = new StringBuilder();
    for (int i = 0; i < set.size(); i++) {
      characters.appendCodePoint(set.charAt(i));
    }
    return Optional.of(new What.AnyOf(characters.toString()));
  }

  /** This part as an expression. */
  String expression() {
    String times = times();
    return switch (what) {
      case What.OfKind(PartKind kind) -> kind.expression() + times;
      case What.AnyOf(String characters) ->
          "["
              + characters.codePoints().mapToObj(PatternPart::member).collect(Collectors.joining())
              + "]"
              + times;
      case What.OneOf(List<String> choices) ->
          "("
              + choices.stream().map(PatternPart::escaped).collect(Collectors.joining("|"))
              + ")"
              + times;
      case What.Fixed(String text) -> {
        String written = escaped(text);
        boolean single = text.codePointCount(0, text.length()) == 1;
        yield times.isEmpty() || single ? written + times : "(?:" + written + ")" + times;
      }
    };
  }

  static String escaped(String text) {
    return text.codePoints().mapToObj(PatternPart::escaped).collect(Collectors.joining());
  }

  private static String escaped(int point) {
    return (META.indexOf(point) >= 0 ? "\\" : "") + Character.toString(point);
  }

  private static String member(int point) {
    return ("\\[]^-&".indexOf(point) >= 0 ? "\\" : "") + Character.toString(point);
  }

  private String times() {
    if (most.isEmpty()) {
      return least == 0 ? "*" : least == 1 ? "+" : "{" + least + ",}";
    }
    int end = most.get();
    if (least == 1 && end == 1) {
      return "";
    }
    return least == 0 && end == 1
        ? "?"
        : least == end ? "{" + least + "}" : "{" + least + "," + end + "}";
  }
}
