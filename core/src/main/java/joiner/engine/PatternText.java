package joiner.engine;

import com.ibm.icu.text.UnicodeSet;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.shape.PatternTree;

/**
 * Patterns in the words of an engine. Sets are written out with all they hold, so that no engine
 * puts a meaning of its own into the short names for them.
 */
final class PatternText {
  private static final String META = "\\.^$*+?()[]{}|";

  /** Beyond this, a pattern of single places is no longer one that people read. */
  private static final int MOST_PLACES = 100;

  /** How an engine's expressions differ. */
  enum Flavour {
    /** Those of Henry Spencer, which PostgreSQL calls advanced. */
    ADVANCED("PostgreSQL", "(?:", 255, 5_000, false),
    /** Those of Java, which H2 takes. */
    JAVA("H2", "(?:", 1_000, 5_000, true),
    /** Those of Perl, which MariaDB takes. */
    PERL("MariaDB", "(?:", 1_000, 1_500, true),
    /** POSIX extended ones. */
    POSIX("Oracle", "(", 255, 1_500, false);

    private final String engine;
    private final String group;
    private final int mostTimes;
    private final int largest;
    private final boolean properties;

    Flavour(String engine, String group, int mostTimes, int largest, boolean properties) {
      this.engine = engine;
      this.group = group;
      this.mostTimes = mostTimes;
      this.largest = largest;
      this.properties = properties;
    }
  }

  private final Flavour flavour;

  private PatternText(Flavour flavour) {
    this.flavour = flavour;
  }

  /**
   * An expression that matches a whole text.
   *
   * @param tree empty where the pattern has a part that engines understand differently
   */
  static String whole(Optional<PatternTree> tree, Flavour flavour, String begin, String end) {
    PatternTree known =
        tree.orElseThrow(
            () ->
                new InexpressibleException(
                    flavour.engine + " understands a part of the pattern differently"));
    if (size(known, 1) > flavour.largest) {
      throw new InexpressibleException(
          flavour.engine + " takes no pattern that grows so large by its repetitions");
    }
    var text = new PatternText(flavour);
    boolean branches = known instanceof PatternTree.Choice;
    return begin + (branches ? text.grouped(known) : text.write(known)) + end;
  }

  /**
   * How many steps the pattern has when its repetitions are written out, as engines do.
   *
   * @param property steps that a property of Unicode takes
   */
  static long size(PatternTree tree, int property) {
    return switch (tree) {
      case PatternTree.One one -> 1;
      case PatternTree.Having having -> property;
      case PatternTree.Sequence s -> 1 + s.parts().stream().mapToLong(p -> size(p, property)).sum();
      case PatternTree.Choice c ->
          1 + c.branches().stream().mapToLong(p -> size(p, property)).sum();
      case PatternTree.Repeat r -> {
        int times = Math.max(1, Math.max(r.least(), r.most().orElse(1)));
        yield Math.min(Integer.MAX_VALUE, size(r.part(), property) * times);
      }
    };
  }

  /** How often a part may come at most, over all the repetitions around it. */
  static long mostTimes(PatternTree tree) {
    return switch (tree) {
      case PatternTree.One one -> 1;
      case PatternTree.Having having -> 1;
      case PatternTree.Sequence s ->
          s.parts().stream().mapToLong(PatternText::mostTimes).max().orElse(1);
      case PatternTree.Choice c ->
          c.branches().stream().mapToLong(PatternText::mostTimes).max().orElse(1);
      case PatternTree.Repeat r -> {
        int times = Math.max(1, Math.max(r.least(), r.most().orElse(1)));
        yield Math.min(Integer.MAX_VALUE, mostTimes(r.part()) * times);
      }
    };
  }

  private String write(PatternTree tree) {
    return switch (tree) {
      case PatternTree.One one -> one(one.set());
      case PatternTree.Having having -> having(having);
      case PatternTree.Sequence sequence ->
          sequence.parts().stream()
              .map(part -> part instanceof PatternTree.Choice ? grouped(part) : write(part))
              .collect(Collectors.joining());
      case PatternTree.Choice choice ->
          choice.branches().stream().map(this::write).collect(Collectors.joining("|"));
      case PatternTree.Repeat repeat -> {
        boolean single =
            repeat.part() instanceof PatternTree.One || repeat.part() instanceof PatternTree.Having;
        yield (single ? write(repeat.part()) : grouped(repeat.part())) + times(repeat);
      }
    };
  }

  private String grouped(PatternTree tree) {
    return flavour.group + write(tree) + ")";
  }

  private String having(PatternTree.Having having) {
    if (!flavour.properties) {
      throw new InexpressibleException(
          flavour.engine + " knows no properties of characters, as to be a letter");
    }
    return (having.negated() ? "\\P{" : "\\p{") + having.category() + "}";
  }

  private String times(PatternTree.Repeat repeat) {
    int least = repeat.least();
    if (Math.max(least, repeat.most().orElse(0)) > flavour.mostTimes) {
      throw new InexpressibleException(
          flavour.engine + " repeats a part of a pattern at most " + flavour.mostTimes + " times");
    }
    if (repeat.most().isEmpty()) {
      return least == 0 ? "*" : least == 1 ? "+" : "{" + least + ",}";
    }
    int most = repeat.most().get();
    if (least == 0 && most == 1) {
      return "?";
    }
    return least == most ? "{" + least + "}" : "{" + least + "," + most + "}";
  }

  private String one(UnicodeSet set) {
    if (set.size() == 1) {
      int point = set.charAt(0);
      String escape = META.indexOf(point) >= 0 ? "\\" : "";
      return escape + character(point);
    }
    boolean negated = set.contains(Character.MAX_CODE_POINT);
    UnicodeSet said = negated ? new UnicodeSet(set).complement() : set;
    if (said.isEmpty()) {
      return negated ? any() : nothing();
    }
    String members = flavour == Flavour.POSIX ? arranged(said) : members(said);
    return "[" + (negated ? "^" : "") + members + "]";
  }

  private String any() {
    return switch (flavour) {
      case ADVANCED -> ".";
      case JAVA, PERL -> "[\\s\\S]";
      case POSIX -> throw new InexpressibleException(flavour.engine + " has no word for any sign");
    };
  }

  private String nothing() {
    throw new InexpressibleException(flavour.engine + " has no word for no character at all");
  }

  private String members(UnicodeSet set) {
    var members = new StringBuilder();
    for (UnicodeSet.EntryRange range : set.ranges()) {
      members.append(member(range.codepoint));
      if (range.codepointEnd > range.codepoint) {
        members.append(range.codepointEnd > range.codepoint + 1 ? "-" : "");
        members.append(member(range.codepointEnd));
      }
    }
    return members.toString();
  }

  /** Without escapes, signs that mean something have their places. */
  private String arranged(UnicodeSet set) {
    String middle = members(new UnicodeSet(set).remove(']').remove('^').remove('-'));
    String begin = (set.contains(']') ? "]" : "") + middle;
    String hyphen = set.contains('-') ? "-" : "";
    String caret = set.contains('^') ? "^" : "";
    return begin.isEmpty() ? hyphen + caret : begin + caret + hyphen;
  }

  private String member(int point) {
    if (flavour == Flavour.POSIX) {
      return character(point);
    }
    return ("\\[]^-".indexOf(point) >= 0 ? "\\" : "") + character(point);
  }

  /** A character outside or within brackets, without escapes for signs that mean something. */
  private String character(int point) {
    if (!Character.isISOControl(point) && Character.getType(point) != Character.SURROGATE) {
      return Character.toString(point);
    }
    return switch (flavour) {
      case ADVANCED, JAVA -> String.format("\\u%04X", point);
      case PERL -> String.format("\\x{%X}", point);
      case POSIX ->
          throw new InexpressibleException(flavour.engine + " has no word for control characters");
    };
  }

  /**
   * The pattern as one of LIKE with sets of characters, as SQL Server has it, where each character
   * has its place; empty where it says more.
   */
  static Optional<String> like(PatternTree tree) {
    var places = new StringBuilder();
    return addPlaces(tree, places) && places.codePoints().count() <= 10 * MOST_PLACES
        ? Optional.of(places.toString())
        : Optional.empty();
  }

  private static boolean addPlaces(PatternTree tree, StringBuilder places) {
    return switch (tree) {
      case PatternTree.One one -> addPlace(one.set(), 1, places);
      case PatternTree.Sequence sequence ->
          sequence.parts().stream().allMatch(part -> addPlaces(part, places));
      case PatternTree.Repeat(PatternTree.One one, int least, Optional<Integer> most) ->
          most.equals(Optional.of(least))
              && least <= MOST_PLACES
              && addPlace(one.set(), least, places);
      case PatternTree.Repeat repeat -> false;
      case PatternTree.Choice choice -> false;
      case PatternTree.Having having -> false;
    };
  }

  private static boolean addPlace(UnicodeSet set, int times, StringBuilder places) {
    boolean negated = set.contains(Character.MAX_CODE_POINT);
    UnicodeSet said = negated ? new UnicodeSet(set).complement() : set;
    var place = new StringBuilder(negated ? "^" : "");
    for (UnicodeSet.EntryRange range : said.ranges()) {
      boolean plain = isPlain(range.codepoint) && isPlain(range.codepointEnd);
      boolean alone = said.size() == 1 && range.codepoint < 0x7F && range.codepoint >= ' ';
      if (!plain && !alone) {
        return false;
      }
      place.appendCodePoint(range.codepoint);
      if (range.codepointEnd > range.codepoint) {
        place.append('-').appendCodePoint(range.codepointEnd);
      }
    }
    if (said.isEmpty() || place.toString().equals("^]") || place.toString().equals("^-")) {
      return false;
    }
    boolean one = !negated && said.size() == 1;
    boolean bare = one && "%_[".indexOf(said.charAt(0)) < 0;
    places.append((bare ? place.toString() : "[" + place + "]").repeat(times));
    return true;
  }

  /** Signs that mean nothing in a set of LIKE. */
  private static boolean isPlain(int point) {
    return point >= ' ' && point < 0x7F && "[]^-".indexOf(point) < 0;
  }
}
