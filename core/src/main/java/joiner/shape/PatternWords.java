package joiner.shape;

import com.ibm.icu.text.UnicodeSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.naming.WordList;

/** What a pattern says, as one would say it: "“M-”, then 4 digits". */
public final class PatternWords {
  /** Sets of so many characters are named one by one. */
  private static final int NAMED = 8;

  private static final String ANY_CASE = " in any case";

  private PatternWords() {}

  /** A pattern in words, without a capital or a full stop. */
  public static String of(PatternTree tree) {
    return say(tree, false);
  }

  /** An expression in words; empty where it is refused or says what words do not. */
  public static Optional<String> of(String expression) {
    return TextPattern.of(expression) instanceof TextPattern.Read.Understood(var pattern)
        ? pattern.tree().map(PatternWords::of)
        : Optional.empty();
  }

  private static String say(PatternTree tree, boolean within) {
    return switch (tree) {
      case PatternTree.One one -> literal(one).map(PatternWords::quoted).orElse("a " + noun(one));
      case PatternTree.Having having -> "a " + noun(having);
      case PatternTree.Sequence sequence ->
          inAnyCase(sequence)
              .map(text -> quoted(text) + ANY_CASE)
              .orElseGet(() -> sequence(sequence.parts(), within));
      case PatternTree.Choice choice -> {
        String said = choice(choice.branches());
        yield within ? "(" + said + ")" : said;
      }
      case PatternTree.Repeat repeat -> repeated(repeat);
    };
  }

  private static String choice(List<PatternTree> branches) {
    List<String> texts = branches.stream().flatMap(branch -> inAnyCase(branch).stream()).toList();
    return texts.size() == branches.size()
        ? WordList.or(texts.stream().map(PatternWords::quoted).toList()) + ANY_CASE
        : branches.stream().map(branch -> say(branch, true)).collect(Collectors.joining(" or "));
  }

  /** A text whose letters may be small or capital, as {@code [pP][dD][fF]} says it. */
  private static Optional<String> inAnyCase(PatternTree tree) {
    if (!(tree instanceof PatternTree.Sequence(var parts)) || parts.isEmpty()) {
      return Optional.empty();
    }
    var text = new StringBuilder();
    boolean either = false;
    for (PatternTree part : parts) {
      if (!(part instanceof PatternTree.One(var set)) || set.isEmpty() || set.size() > 2) {
        return Optional.empty();
      }
      int last = set.charAt(set.size() - 1);
      boolean pair = set.size() == 2 && Character.toUpperCase(last) == set.charAt(0);
      boolean caseless = set.size() == 1 && !Character.isLetter(last);
      if (!pair && !caseless) {
        return Optional.empty();
      }
      either |= pair;
      text.appendCodePoint(last);
    }
    return either ? Optional.of(text.toString()) : Optional.empty();
  }

  /** Characters that stand by themselves one behind the other are one text. */
  private static String sequence(List<PatternTree> parts, boolean within) {
    if (parts.isEmpty()) {
      return "nothing";
    }
    var said = new ArrayList<String>();
    var text = new StringBuilder();
    for (PatternTree part : parts) {
      Optional<String> literal =
          part instanceof PatternTree.One one ? literal(one) : Optional.empty();
      if (literal.isPresent()) {
        text.append(literal.get());
      } else {
        addText(text, said);
        said.add(say(part, true));
      }
    }
    addText(text, said);
    String all = String.join(", then ", said);
    return within && said.size() > 1 ? "(" + all + ")" : all;
  }

  private static void addText(StringBuilder text, List<String> said) {
    if (!text.isEmpty()) {
      said.add(quoted(text.toString()));
      text.setLength(0);
    }
  }

  private static String quoted(String text) {
    return "“" + text + "”";
  }

  private static Optional<String> literal(PatternTree.One one) {
    return one.set().size() == 1
        ? Optional.of(Character.toString(one.set().charAt(0)))
        : Optional.empty();
  }

  private static String repeated(PatternTree.Repeat repeat) {
    int least = repeat.least();
    Optional<Integer> most = repeat.most();
    Optional<String> noun =
        switch (repeat.part()) {
          case PatternTree.One one ->
              literal(one).isPresent() ? Optional.empty() : Optional.of(plural(noun(one)));
          case PatternTree.Having having -> Optional.of(plural(noun(having)));
          case PatternTree.Sequence s -> Optional.empty();
          case PatternTree.Choice c -> Optional.empty();
          case PatternTree.Repeat r -> Optional.empty();
        };
    String alone = say(repeat.part(), true);
    if (least == 0 && most.equals(Optional.of(1))) {
      return "perhaps " + alone;
    }
    if (least == 1 && most.equals(Optional.of(1))) {
      return alone;
    }
    String times = times(least, most);
    return noun.map(n -> times + " " + n).orElseGet(() -> alone + " " + times + " times");
  }

  private static String times(int least, Optional<Integer> most) {
    if (most.isEmpty()) {
      return least == 0 ? "any number of" : least + " or more";
    }
    if (least == most.get()) {
      return String.valueOf(least);
    }
    return least == 0 ? "up to " + most.get() : least + " to " + most.get();
  }

  private static String plural(String noun) {
    int first = noun.indexOf(' ');
    if (noun.startsWith("character") && first > 0) {
      return "characters" + noun.substring(first);
    }
    return noun.replace(" or ", "s or ") + "s";
  }

  private static String noun(PatternTree.Having having) {
    String noun =
        switch (having.category()) {
          case "L" -> "letter";
          case "Lu" -> "capital";
          case "Ll" -> "small letter";
          case "N", "Nd" -> "digit";
          default -> "character of the kind " + having.category();
        };
    return having.negated() ? "character that is no " + noun : noun;
  }

  private static String noun(PatternTree.One one) {
    Optional<PartKind> kind = PartKind.of(one.set());
    if (kind.isPresent()) {
      return kind.get().words();
    }
    boolean negated = one.set().contains(Character.MAX_CODE_POINT);
    UnicodeSet said = negated ? new UnicodeSet(one.set()).complement() : one.set();
    return negated ? "character that is none of " + members(said) : "character of " + members(said);
  }

  private static String members(UnicodeSet set) {
    var members = new ArrayList<String>();
    int named = 0;
    for (UnicodeSet.EntryRange range : set.ranges()) {
      if (named++ == NAMED) {
        members.add("…");
        break;
      }
      String from = shown(range.codepoint);
      String to = shown(range.codepointEnd);
      switch (range.codepointEnd - range.codepoint) {
        case 0 -> members.add(from);
        case 1 -> members.addAll(List.of(from, to));
        default -> members.add(from + "–" + to);
      }
    }
    return String.join(" ", members);
  }

  private static String shown(int character) {
    return switch (character) {
      case ' ' -> "blank";
      case '\t' -> "tab";
      case '\n' -> "line break";
      default -> Character.toString(character);
    };
  }
}
