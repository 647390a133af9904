package joiner.discovery;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import joiner.naming.NamingPolicy;
import joiner.rows.EncodedColumn;
import joiner.rows.EncodedTable;
import joiner.rows.ValueForm;

/**
 * Finds values that may be two spellings of one thing: the same letters and digits but for case,
 * accents, blanks and punctuation; or, for longer words, one letter left out, added or changed,
 * where one is much rarer than the other. Pairs that differ in a digit are two things. Words one
 * letter apart are found by what is left when a letter is taken away, in time linear in the
 * letters.
 */
final class SpellingVariants {
  private static final int MOST_VALUES = 20_000;
  private static final int LONG_WORD = 6;

  /** How much more frequent the right spelling is. */
  private static final int LOPSIDED = 4;

  private final EncodedColumn column;
  private final int place;
  private final FactNames names;
  private final int[] counts;
  private final Map<Integer, Fact.SameThing> found = new TreeMap<>();

  private SpellingVariants(EncodedColumn column, int place, FactNames names) {
    this.column = column;
    this.place = place;
    this.names = names;
    this.counts = column.counts();
  }

  static List<Fact.SameThing> find(
      EncodedTable table, List<ColumnProfile> profiles, FactNames names) {
    var facts = new ArrayList<Fact.SameThing>();
    for (int place = 0; place < table.columns().size(); place++) {
      ColumnProfile profile = profiles.get(place);
      boolean list = profile.distinct() * 2 <= profile.rows() - profile.blank();
      if (profile.form() == ValueForm.TEXT && list && profile.distinct() <= MOST_VALUES) {
        var variants = new SpellingVariants(table.columns().get(place), place, names);
        variants.sameLetters();
        variants.oneLetterApart();
        facts.addAll(variants.found.values());
      }
    }
    return facts;
  }

  private static String letters(String text) {
    return Normalizer.normalize(text, Normalizer.Form.NFKD)
        .replaceAll("[^\\p{L}\\p{N}]", "")
        .toLowerCase(Locale.ROOT);
  }

  private IntStream used() {
    return IntStream.range(1, counts.length).filter(code -> counts[code] > 0);
  }

  private void sameLetters() {
    Map<String, List<Integer>> byLetters = new HashMap<>();
    used()
        .forEach(
            code -> {
              String letters = letters(column.textOf(code));
              if (!letters.isEmpty()) {
                byLetters.computeIfAbsent(letters, l -> new ArrayList<>(1)).add(code);
              }
            });
    byLetters.values().stream().filter(codes -> codes.size() > 1).forEach(this::merge);
  }

  private void merge(List<Integer> codes) {
    int keep = codes.getFirst();
    for (int code : codes) {
      keep = counts[code] > counts[keep] ? code : keep;
    }
    for (int code : codes) {
      if (code != keep) {
        add(keep, code, 0.8, "the same letters but for case, accents, blanks and punctuation");
      }
    }
  }

  private void oneLetterApart() {
    Map<String, List<Integer>> byRest = new HashMap<>();
    used()
        .filter(code -> column.textOf(code).length() >= LONG_WORD)
        .filter(code -> column.textOf(code).length() <= 60)
        .forEach(
            code -> {
              String text = column.textOf(code);
              byRest.computeIfAbsent(text, t -> new ArrayList<>(1)).add(code);
              for (int i = 0; i < text.length(); i++) {
                String rest = text.substring(0, i) + text.substring(i + 1);
                byRest.computeIfAbsent(rest, t -> new ArrayList<>(1)).add(code);
              }
            });
    for (List<Integer> codes : byRest.values()) {
      for (int i = 0; i < codes.size() && codes.size() <= 20; i++) {
        for (int j = i + 1; j < codes.size(); j++) {
          near(codes.get(i), codes.get(j));
        }
      }
    }
  }

  private void near(int one, int other) {
    int keep = counts[one] >= counts[other] ? one : other;
    int rare = keep == one ? other : one;
    boolean lopsided = counts[keep] >= (long) LOPSIDED * counts[rare];
    if (keep != rare && lopsided && sameDigits(column.textOf(keep), column.textOf(rare))) {
      add(keep, rare, 0.6, "one letter apart, and one is much rarer");
    }
  }

  private static boolean sameDigits(String one, String other) {
    return one.replaceAll("\\D", "").equals(other.replaceAll("\\D", ""));
  }

  private void add(int keep, int other, double score, String reason) {
    found.putIfAbsent(
        other,
        new Fact.SameThing(
            names.of(place) + ".same." + NamingPolicy.nameFor(column.textOf(other)) + "_" + other,
            score,
            List.of(reason),
            place,
            column.textOf(keep),
            counts[keep],
            column.textOf(other),
            counts[other]));
  }
}
