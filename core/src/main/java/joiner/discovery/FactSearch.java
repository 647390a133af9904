package joiner.discovery;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import joiner.dependency.AttributeSet;
import joiner.rows.EncodedTable;

/**
 * Finds the facts that would split a table: numbered columns, lists in cells, what decides what,
 * lookups, and two spellings of one thing; the most plausible first.
 *
 * @param facts best first
 * @param complete whether the search was not cut short
 */
public record FactSearch(List<Fact> facts, boolean complete) {
  /** Share of rows that may contradict a dependency that is still shown. */
  private static final double MOST_ERROR = 0.05;

  /** Columns on the left side of a dependency that is shown. */
  private static final int DETERMINANT = 2;

  /** From here on a fact is taken to be more likely true than not. */
  public static final double PLAUSIBLE = 0.5;

  public FactSearch {
    facts = List.copyOf(facts);
  }

  /**
   * Searches a table.
   *
   * @param profiles of its columns
   * @param stop asked often; once true the search ends with what it has
   */
  public static FactSearch of(
      EncodedTable table, List<ColumnProfile> profiles, BooleanSupplier stop) {
    var stopped = new AtomicBoolean();
    BooleanSupplier watched =
        () -> {
          if (stop.getAsBoolean()) {
            stopped.set(true);
          }
          return stopped.get();
        };
    var names = new FactNames(table.headers());
    List<Fact.Repeats> repeats = RepeatedColumns.find(table, profiles, names);
    List<Fact.HoldsSeveral> lists = SeveralValues.find(table, profiles, names);
    Set<Integer> repeated = new HashSet<>();
    repeats.forEach(r -> r.bases().forEach(base -> repeated.addAll(base.columns())));
    Set<Integer> several = new HashSet<>();
    lists.forEach(list -> several.add(list.column()));
    List<Integer> searched =
        IntStream.range(0, table.columns().size())
            .filter(column -> !repeated.contains(column))
            .boxed()
            .toList();
    FoundDependencies found =
        new DependencySearch(true, DETERMINANT, watched)
            .approximateDependencies(table.keeping(searched), MOST_ERROR);
    List<Fact.Decides> decisions =
        new Plausibility(table, profiles, names).rank(found.dependencies(), searched, several);
    var facts = new ArrayList<Fact>(repeats);
    facts.addAll(lists);
    facts.addAll(decisions);
    facts.addAll(lookups(table, profiles, names, repeats, several, decisions));
    facts.addAll(SpellingVariants.find(table, profiles, names));
    facts.sort(Comparator.comparingDouble(Fact::score).reversed().thenComparing(Fact::id));
    return new FactSearch(facts, !stopped.get());
  }

  /** What the rows say about a dependency that somebody states; places of columns, from 0. */
  public static Fact.Decides ask(
      EncodedTable table, List<ColumnProfile> profiles, AttributeSet determinant, int dependent) {
    int exceptions = 0;
    for (Contradiction contradiction : Contradiction.of(table, determinant, dependent)) {
      exceptions += contradiction.minority().size();
    }
    return new Plausibility(table, profiles, new FactNames(table.headers()))
        .fact(determinant, dependent, exceptions);
  }

  /** Short lists that no dependency gives a table already. */
  private static List<Fact> lookups(
      EncodedTable table,
      List<ColumnProfile> profiles,
      FactNames names,
      List<Fact.Repeats> repeats,
      Set<Integer> several,
      List<Fact.Decides> decisions) {
    Set<Integer> placed = new HashSet<>(several);
    for (Fact.Decides decision : decisions) {
      if (decision.score() >= PLAUSIBLE) {
        placed.add(decision.dependent());
        if (decision.determinant().size() == 1) {
          decision.determinant().places().forEach(placed::add);
        }
      }
    }
    var facts = new ArrayList<Fact>();
    for (int column = 0; column < profiles.size(); column++) {
      int place = column;
      boolean repeated =
          repeats.stream()
              .flatMap(r -> r.bases().stream())
              .anyMatch(base -> base.columns().contains(place));
      if (!repeated && !placed.contains(column) && profiles.get(column).lookup()) {
        ColumnProfile profile = profiles.get(column);
        facts.add(
            lookup(names.of(column), column, profile.distinct(), profile.rows() - profile.blank()));
      }
    }
    for (Fact.Repeats repeat : repeats) {
      for (Fact.Repeats.Base base : repeat.bases()) {
        repeatedLookup(table, profiles, names, base, facts);
      }
    }
    return facts;
  }

  private static void repeatedLookup(
      EncodedTable table,
      List<ColumnProfile> profiles,
      FactNames names,
      Fact.Repeats.Base base,
      List<Fact> facts) {
    Map<String, Integer> values = new HashMap<>();
    for (int column : base.columns()) {
      int[] counts = table.columns().get(column).counts();
      for (int code = 1; code < counts.length; code++) {
        values.merge(table.columns().get(column).textOf(code), counts[code], Integer::sum);
      }
    }
    long uses = values.values().stream().mapToLong(i -> i).sum();
    boolean text =
        profiles.get(base.columns().getFirst()).type() instanceof joiner.model.FieldType.Text;
    if (text && values.size() >= 2 && values.size() <= 200 && uses >= 3L * values.size()) {
      facts.add(
          lookup(
              names.of(base.columns().getFirst()).replaceAll("_?\\d+$", ""),
              base.columns().getFirst(),
              values.size(),
              uses));
    }
  }

  private static Fact lookup(String name, int column, long values, long uses) {
    double repeats = 1 - (double) values / uses;
    return new Fact.IsLookup(
        name + ".lookup",
        0.4 + 0.3 * repeats,
        List.of(values + " different values in " + uses + " cells"),
        column);
  }
}
