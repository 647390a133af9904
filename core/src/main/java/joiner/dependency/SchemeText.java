package joiner.dependency;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Reads attributes and dependencies as people type them: {@code A,B} and {@code A,B->C; C->A}. */
public final class SchemeText {
  private SchemeText() {}

  /**
   * Reads a scheme.
   *
   * @throws IllegalArgumentException if a name is unknown or a dependency has no arrow; the message
   *     says which and what to do
   */
  public static Scheme read(String attributes, String dependencies) {
    List<String> names = names(attributes);
    if (names.isEmpty()) {
      throw new IllegalArgumentException("there are no attributes; name them like \"A,B,C\"");
    }
    var read = new ArrayList<Dependency>();
    for (String text : dependencies.split(";")) {
      if (!text.isBlank() && !text.contains("->>")) {
        read.add(dependency(text, names));
      }
    }
    return new Scheme(names, read);
  }

  /**
   * Reads the multivalued dependencies of a text, which are written {@code A->>B}.
   *
   * @throws IllegalArgumentException as {@link #read} does
   */
  public static List<Multivalued> multivalued(Scheme scheme, String dependencies) {
    var read = new ArrayList<Multivalued>();
    for (String text : dependencies.split(";")) {
      if (text.contains("->>")) {
        Dependency sides = dependency(text.replace("->>", "->"), scheme.attributes());
        read.add(new Multivalued(sides.from(), sides.to()));
      }
    }
    return read;
  }

  /**
   * Reads one dependency.
   *
   * @throws IllegalArgumentException as {@link #read} does
   */
  public static Dependency dependency(Scheme scheme, String text) {
    return dependency(text, scheme.attributes());
  }

  private static Dependency dependency(String text, List<String> names) {
    String[] sides = text.split("->", -1);
    if (sides.length != 2 || sides[1].isBlank()) {
      throw new IllegalArgumentException(
          "“" + text.strip() + "” is no dependency; write it like \"A,B->C\"");
    }
    return new Dependency(set(sides[0], names), set(sides[1], names));
  }

  private static AttributeSet set(String text, List<String> names) {
    AttributeSet set = AttributeSet.EMPTY;
    for (String name : names(text)) {
      int place = names.indexOf(name);
      if (place < 0) {
        throw new IllegalArgumentException(
            "there is no attribute “" + name + "”; the attributes are " + String.join(", ", names));
      }
      set = set.with(place);
    }
    return set;
  }

  private static List<String> names(String text) {
    return Arrays.stream(text.split(","))
        .map(String::strip)
        .filter(name -> !name.isEmpty())
        .toList();
  }
}
