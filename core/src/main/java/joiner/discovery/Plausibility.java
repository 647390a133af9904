package joiner.discovery;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import joiner.dependency.AttributeSet;
import joiner.model.FieldType;
import joiner.rows.EncodedColumn;
import joiner.rows.EncodedTable;

/**
 * Ranks dependencies by how likely they are more than an accident of the rows at hand. Most weight
 * has how far the determinant tells the dependent beyond what it would by chance: the reliable
 * fraction of information (Panagiotis Mandros, Mario Boley, Jilles Vreeken, "Discovering reliable
 * approximate functional dependencies", 2017), with the expectation under independence taken to
 * first order, (a − 1)(b − 1) / 2n. Further count the rows a table of its own would save, whether
 * the determinant looks like the name of something, how many columns it has, and like names.
 */
final class Plausibility {
  private final EncodedTable table;
  private final List<ColumnProfile> profiles;
  private final FactNames names;
  private final Map<AttributeSet, Integer> combinations = new HashMap<>();

  Plausibility(EncodedTable table, List<ColumnProfile> profiles, FactNames names) {
    this.table = table;
    this.profiles = profiles;
    this.names = names;
  }

  /**
   * The dependencies as facts, without those that save nothing.
   *
   * @param searched the column of the table behind each column the dependencies speak of
   * @param several columns that hold lists, which decide nothing
   */
  List<Fact.Decides> rank(
      List<FoundDependency> found, List<Integer> searched, Set<Integer> several) {
    var facts = new ArrayList<Fact.Decides>();
    for (FoundDependency dependency : found) {
      AttributeSet determinant =
          AttributeSet.of(dependency.determinant().places().map(searched::get).toArray());
      int dependent = searched.get(dependency.dependent());
      boolean list = determinant.places().anyMatch(several::contains);
      if (!determinant.isEmpty() && !list && profiles.get(dependent).distinct() > 1) {
        Fact.Decides fact = fact(determinant, dependent, dependency.exceptions());
        if (fact.score() > 0.15) {
          facts.add(fact);
        }
      }
    }
    return oneDirection(facts);
  }

  /** Of two columns that decide each other, the one that is more like a name decides. */
  private static List<Fact.Decides> oneDirection(List<Fact.Decides> facts) {
    Map<String, Fact.Decides> byPair = new HashMap<>();
    facts.stream()
        .filter(fact -> fact.determinant().size() == 1)
        .forEach(fact -> byPair.put(pair(fact.determinant(), fact.dependent()), fact));
    Set<Fact.Decides> dropped = new HashSet<>();
    for (Fact.Decides fact : facts) {
      if (fact.determinant().size() == 1) {
        int from = fact.determinant().places().findFirst().orElseThrow();
        Fact.Decides reverse = byPair.get(pair(AttributeSet.of(fact.dependent()), from));
        if (reverse != null && !dropped.contains(reverse) && !better(fact, from, reverse)) {
          dropped.add(fact);
        }
      }
    }
    return facts.stream()
        .filter(fact -> !dropped.contains(fact) && !saidByAnother(fact, dropped, byPair))
        .toList();
  }

  /** Whether its determinant is only another name of one that decides the same. */
  private static boolean saidByAnother(
      Fact.Decides fact, Set<Fact.Decides> dropped, Map<String, Fact.Decides> byPair) {
    return dropped.stream()
        .filter(reverse -> reverse.determinant().equals(fact.determinant()))
        .map(reverse -> byPair.get(pair(AttributeSet.of(reverse.dependent()), fact.dependent())))
        .anyMatch(other -> other != null && !dropped.contains(other));
  }

  private static boolean better(Fact.Decides fact, int from, Fact.Decides reverse) {
    double margin = 0.15; // Within this the column further left names the thing.
    return fact.score() > reverse.score() + margin
        || fact.score() > reverse.score() - margin && from < fact.dependent();
  }

  private static String pair(AttributeSet from, int to) {
    return from + ">" + to;
  }

  /** A dependency with its score and reasons. */
  Fact.Decides fact(AttributeSet determinant, int dependent, int exceptions) {
    int rows = table.rows();
    int groups = combinations.computeIfAbsent(determinant, this::combinations);
    double redundancy = 1 - (double) groups / rows;
    double beyondChance = beyondChance(groups, dependent);
    double nameLike = nameLike(determinant);
    double coverage = 1 - 4.0 * exceptions / rows;
    double length = determinant.size() == 1 ? 1 : 0.55;
    boolean likeNames = likeNames(determinant, dependent);
    double score =
        length * nameLike * coverage * (0.2 + 0.25 * redundancy + 0.55 * beyondChance)
            + (likeNames ? 0.05 : 0);
    var reasons = new ArrayList<String>();
    reasons.add(
        exceptions == 0
            ? "true in all " + rows + " rows"
            : "true in " + (rows - exceptions) + " of " + rows + " rows");
    reasons.add(groups + " different " + names.headers(determinant) + " in " + rows + " rows");
    reasons.add(
        Math.round(100 * beyondChance)
            + " % of what "
            + names.header(dependent)
            + " says is told beyond chance");
    if (nameLike < 0.8) {
      reasons.add("values like those of " + names.headers(determinant) + " seldom name things");
    }
    if (determinant.size() > 1) {
      reasons.add("it takes " + determinant.size() + " columns together");
    }
    return new Fact.Decides(
        names.of(determinant) + ".decides." + names.of(dependent),
        Math.clamp(score, 0, 1),
        reasons,
        determinant,
        dependent,
        exceptions);
  }

  private int combinations(AttributeSet columns) {
    int[] places = columns.places().toArray();
    if (places.length == 1) {
      return (int) profiles.get(places[0]).distinct()
          + (profiles.get(places[0]).blank() > 0 ? 1 : 0);
    }
    Set<List<Integer>> seen = new HashSet<>();
    for (int row = 0; row < table.rows(); row++) {
      var key = new ArrayList<Integer>(places.length);
      for (int place : places) {
        key.add(table.columns().get(place).code(row));
      }
      seen.add(key);
    }
    return seen.size();
  }

  /** 1: only a true dependency explains it; 0: any column of so many values would do as well. */
  private double beyondChance(int groups, int dependent) {
    EncodedColumn column = table.columns().get(dependent);
    double entropy = 0;
    int values = 0;
    for (int count : column.counts()) {
      if (count > 0) {
        double share = (double) count / table.rows();
        entropy -= share * Math.log(share);
        values++;
      }
    }
    double expected = (groups - 1.0) * (values - 1.0) / (2.0 * table.rows());
    return entropy == 0 ? 0 : Math.clamp(1 - expected / entropy, 0, 1);
  }

  private double nameLike(AttributeSet determinant) {
    return determinant
        .places()
        .mapToDouble(column -> nameLike(profiles.get(column)))
        .min()
        .orElse(1);
  }

  private static double nameLike(ColumnProfile profile) {
    double whole = profile.blank() == 0 ? 1 : 0.8;
    return whole
        * switch (profile.type()) {
          case FieldType.Text text -> text.maxLength() <= 80 ? 1 : 0.6;
          case FieldType.LongText text -> 0.3;
          case FieldType.Decimal number -> 0.35;
          case FieldType.AnyNumber number -> 0.35;
          case FieldType.WholeNumber number -> 0.8;
          case FieldType.Date date -> 0.5;
          case FieldType.DateTime time -> 0.4;
          case FieldType.Time time -> 0.4;
          case FieldType.TrueFalse truth -> 0.2;
          default -> 0.95;
        };
  }

  private boolean likeNames(AttributeSet determinant, int dependent) {
    Set<String> words = words(names.header(dependent));
    return determinant
        .places()
        .anyMatch(column -> words.stream().anyMatch(words(names.header(column))::contains));
  }

  private static Set<String> words(String header) {
    Set<String> words = new HashSet<>(List.of(header.toLowerCase(Locale.ROOT).split("[^\\p{L}]+")));
    words.removeIf(word -> word.length() < 3);
    return words;
  }
}
