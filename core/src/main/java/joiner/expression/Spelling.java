package joiner.expression;

import java.util.Collection;
import java.util.Comparator;
import java.util.Locale;
import java.util.Optional;

/** Finds the known name or text a person probably meant. */
public final class Spelling {
  private Spelling() {}

  /** The nearest of the known names, if it is at most a third of its length away. */
  public static Optional<String> nearest(String typed, Collection<String> known) {
    String lower = typed.toLowerCase(Locale.ROOT);
    return known.stream()
        .min(Comparator.comparingInt(name -> distance(lower, name.toLowerCase(Locale.ROOT))))
        .filter(
            name ->
                distance(lower, name.toLowerCase(Locale.ROOT)) <= Math.max(1, name.length() / 3));
  }

  /** Edit distance (Vladimir Levenshtein, 1966), row by row: O(|a|·|b|) time, O(|b|) space. */
  private static int distance(String a, String b) {
    int[] row = new int[b.length() + 1];
    for (int j = 0; j <= b.length(); j++) {
      row[j] = j;
    }
    for (int i = 1; i <= a.length(); i++) {
      int diagonal = row[0];
      row[0] = i;
      for (int j = 1; j <= b.length(); j++) {
        int above = row[j];
        int change = diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
        row[j] = Math.min(change, Math.min(above, row[j - 1]) + 1);
        diagonal = above;
      }
    }
    return row[b.length()];
  }
}
