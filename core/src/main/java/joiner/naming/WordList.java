package joiner.naming;

import java.util.List;

/** Several things in a sentence. */
public final class WordList {
  private WordList() {}

  /** All of them: "cone", "cone and kiln", "cone, kiln and peak"; empty for none. */
  public static String and(List<String> words) {
    return joined(words, " and ");
  }

  /** One of them: "low, middling or high"; empty for none. */
  public static String or(List<String> words) {
    return joined(words, " or ");
  }

  private static String joined(List<String> words, String last) {
    int end = words.size() - 1;
    return end < 1
        ? String.join("", words)
        : String.join(", ", words.subList(0, end)) + last + words.get(end);
  }
}
