package joiner.dependency;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Named attributes with their functional dependencies, and what follows from them. */
public final class Scheme {
  /** Widest part whose subsets are all searched for a hidden violation of BCNF. */
  private static final int SEARCHED_IN_FULL = 16;

  private final List<String> attributes;
  private final List<Dependency> dependencies;
  private final AttributeSet all;
  private final Closure closure;

  /** The minimal cover, once asked for; always the same, so any thread may work it out. */
  private volatile @Nullable List<Dependency> cover;

  /** A scheme; names are different, dependencies speak of its attributes only. */
  public Scheme(List<String> attributes, List<Dependency> dependencies) {
    this.attributes = List.copyOf(attributes);
    this.dependencies = List.copyOf(dependencies);
    this.all = AttributeSet.first(attributes.size());
    if (attributes.stream().distinct().count() != attributes.size()) {
      throw new IllegalArgumentException("an attribute is there twice: " + attributes);
    }
    if (dependencies.stream().anyMatch(d -> !all.containsAll(d.from().union(d.to())))) {
      throw new IllegalArgumentException("a dependency speaks of an attribute that is not there");
    }
    this.closure = new Closure(attributes.size(), dependencies);
  }

  public List<String> attributes() {
    return attributes;
  }

  public List<Dependency> dependencies() {
    return dependencies;
  }

  /** Names of the attributes of a set, in the scheme's order. */
  public List<String> names(AttributeSet set) {
    return set.places().mapToObj(attributes::get).toList();
  }

  /** Everything the set determines. */
  public AttributeSet closure(AttributeSet set) {
    return closure.of(set);
  }

  /** Whether the dependency follows from those of the scheme. */
  public boolean implies(Dependency dependency) {
    return closure.implies(dependency);
  }

  /** Why the dependency follows; empty if it does not. */
  public Optional<Derivation> derive(Dependency dependency) {
    return Derivation.of(dependency, dependencies);
  }

  /** All candidate keys, until {@code stop} says so. */
  public CandidateKeys candidateKeys(BooleanSupplier stop) {
    return CandidateKeys.of(all, dependencies, closure, stop);
  }

  /** Attributes that are part of a candidate key. */
  public AttributeSet prime(CandidateKeys keys) {
    return keys.keys().stream().reduce(AttributeSet.EMPTY, AttributeSet::union);
  }

  /**
   * A minimal cover: no attribute on a left side and no dependency can be left out; dependencies of
   * one left side are put together (David Maier, "The Theory of Relational Databases", 1983,
   * chapter 5, from memory).
   */
  public List<Dependency> minimalCover() {
    List<Dependency> known = cover;
    if (known == null) {
      known = workOutCover();
      cover = known;
    }
    return known;
  }

  private List<Dependency> workOutCover() {
    var single = new ArrayList<Dependency>();
    for (Dependency dependency : dependencies) {
      dependency
          .to()
          .minus(dependency.from())
          .places()
          .forEach(to -> single.add(reduced(dependency.from(), to)));
    }
    var kept = new ArrayList<>(single.stream().distinct().toList());
    for (Dependency dependency : List.copyOf(kept)) {
      var rest = new ArrayList<>(kept);
      rest.remove(dependency);
      if (new Closure(attributes.size(), rest).implies(dependency)) {
        kept.remove(dependency);
      }
    }
    Map<AttributeSet, AttributeSet> merged = new LinkedHashMap<>();
    kept.forEach(d -> merged.merge(d.from(), d.to(), AttributeSet::union));
    return merged.entrySet().stream()
        .map(entry -> new Dependency(entry.getKey(), entry.getValue()))
        .toList();
  }

  private Dependency reduced(AttributeSet from, int to) {
    AttributeSet left = from;
    for (int place : from.places().toArray()) {
      if (closure.of(left.without(place)).contains(to)) {
        left = left.without(place);
      }
    }
    return new Dependency(left, AttributeSet.of(to));
  }

  /** Every violation of second, third and Boyce-Codd normal form by a dependency of the cover. */
  public List<Violation> violations(CandidateKeys keys) {
    AttributeSet prime = prime(keys);
    var violations = new ArrayList<Violation>();
    for (Dependency dependency : minimalCover()) {
      if (closure.of(dependency.from()).containsAll(all)) {
        continue;
      }
      AttributeSet others = dependency.to().minus(prime);
      boolean part = keys.keys().stream().anyMatch(key -> key.containsAll(dependency.from()));
      String left = words(dependency.from());
      if (!others.isEmpty() && part) {
        violations.add(
            new Violation(
                NormalForm.SECOND,
                new Dependency(dependency.from(), others),
                left + " is only part of a key and decides " + words(others) + "."));
      } else if (!others.isEmpty()) {
        violations.add(
            new Violation(
                NormalForm.THIRD,
                new Dependency(dependency.from(), others),
                left + " is no key and decides " + words(others) + ", which is part of no key."));
      }
      AttributeSet primes = dependency.to().intersection(prime);
      if (!primes.isEmpty()) {
        violations.add(
            new Violation(
                NormalForm.BOYCE_CODD,
                new Dependency(dependency.from(), primes),
                left + " is no key and decides " + words(primes) + "."));
      }
    }
    return violations;
  }

  private String words(AttributeSet set) {
    return set.isEmpty() ? "nothing at all" : String.join(", ", names(set));
  }

  /** The highest normal form that the violations leave. */
  public NormalForm normalForm(List<Violation> violations) {
    return violations.stream()
        .map(Violation::form)
        .min(java.util.Comparator.naturalOrder())
        .map(lowest -> NormalForm.values()[lowest.ordinal() - 1])
        .orElse(NormalForm.BOYCE_CODD);
  }

  /**
   * Tables in third normal form that keep every dependency and lose no row (Philip Bernstein,
   * "Synthesizing third normal form relations from functional dependencies", 1976; the key table by
   * Joachim Biskup, Umeshwar Dayal, Philip Bernstein, 1979).
   */
  public Decomposition synthesis(CandidateKeys keys) {
    List<Dependency> cover = minimalCover();
    var parts = new ArrayList<AttributeSet>();
    AttributeSet named = AttributeSet.EMPTY;
    for (Dependency dependency : cover) {
      parts.add(dependency.from().union(dependency.to()));
      named = named.union(parts.getLast());
    }
    boolean keyed = parts.stream().anyMatch(part -> closure.of(part).containsAll(all));
    if (!keyed || !named.containsAll(all)) {
      parts.add(keys.keys().getFirst());
    }
    return proved(withoutContained(parts), true);
  }

  /** The parts of which no other is a superset, each once. */
  static List<AttributeSet> withoutContained(List<AttributeSet> parts) {
    var kept = new ArrayList<AttributeSet>();
    for (AttributeSet part : parts.stream().distinct().toList()) {
      if (parts.stream().noneMatch(other -> !other.equals(part) && other.containsAll(part))) {
        kept.add(part);
      }
    }
    return kept;
  }

  /**
   * Tables in Boyce-Codd normal form that lose no row, split at one violation after the other.
   * Finding a violation hidden in a part is hard in general (Catriel Beeri, Philip Bernstein,
   * 1979), so parts wider than 16 attributes are searched at the determinants of the dependencies
   * only.
   */
  public Decomposition boyceCodd() {
    var done = new ArrayList<AttributeSet>();
    var open = new java.util.ArrayDeque<>(List.of(all));
    boolean complete = true;
    while (!open.isEmpty()) {
      AttributeSet part = open.poll();
      Optional<AttributeSet> determinant = violating(part);
      if (determinant.isPresent()) {
        AttributeSet decided = closure.of(determinant.get()).intersection(part);
        open.add(decided);
        open.add(determinant.get().union(part.minus(decided)));
      } else {
        complete &= part.size() <= SEARCHED_IN_FULL;
        done.add(part);
      }
    }
    return proved(withoutContained(done), complete);
  }

  /** A determinant within the part that decides something there without being its key. */
  private Optional<AttributeSet> violating(AttributeSet part) {
    for (Dependency dependency : dependencies) {
      if (part.containsAll(dependency.from()) && splits(dependency.from(), part)) {
        return Optional.of(dependency.from());
      }
    }
    int[] places = part.places().toArray();
    if (places.length > SEARCHED_IN_FULL || part.equals(all)) {
      return Optional.empty();
    }
    for (int subset = 0; subset < 1 << places.length; subset++) {
      AttributeSet determinant = subset(places, subset);
      if (splits(determinant, part)) {
        return Optional.of(determinant);
      }
    }
    return Optional.empty();
  }

  /** Those of the places whose bit is set. */
  static AttributeSet subset(int[] places, int chosen) {
    AttributeSet set = AttributeSet.EMPTY;
    for (int i = 0; i < places.length; i++) {
      set = (chosen >> i & 1) == 1 ? set.with(places[i]) : set;
    }
    return set;
  }

  private boolean splits(AttributeSet determinant, AttributeSet part) {
    AttributeSet decided = closure.of(determinant).intersection(part);
    return !decided.equals(determinant) && !decided.equals(part);
  }

  /**
   * Whether tables of those parts always join back to the whole. If the rows of one part alone can
   * be completed from the others, one after the other, they do; otherwise the chase decides.
   */
  public boolean isLossless(List<AttributeSet> parts) {
    return parts.stream().anyMatch(part -> completes(part, parts))
        || Chase.isLossless(attributes.size(), parts, dependencies);
  }

  /**
   * Whether each row of a part finds all its attributes by looking up in other parts what is known
   * of it. Each step is one the chase could take.
   */
  private boolean completes(AttributeSet start, List<AttributeSet> parts) {
    if (!closure.of(start).containsAll(all)) {
      return false;
    }
    AttributeSet known = start;
    boolean changed = true;
    while (changed && !known.equals(all)) {
      changed = false;
      for (AttributeSet part : parts) {
        if (!known.containsAll(part)) {
          AttributeSet more = known.union(closure.of(known.intersection(part)).intersection(part));
          changed |= !more.equals(known);
          known = more;
        }
      }
    }
    return known.equals(all);
  }

  private Decomposition proved(List<AttributeSet> parts, boolean complete) {
    List<Dependency> lost =
        minimalCover().stream().filter(dependency -> !keeps(parts, dependency)).toList();
    return new Decomposition(parts, isLossless(parts), lost, complete);
  }

  /**
   * Whether tables of those parts keep the dependency without being joined (Jeffrey Ullman, 1988,
   * from memory).
   */
  public boolean keeps(List<AttributeSet> parts, Dependency dependency) {
    AttributeSet whole = dependency.from().union(dependency.to());
    if (parts.stream().anyMatch(part -> part.containsAll(whole))) {
      return true;
    }
    AttributeSet known = dependency.from();
    while (true) {
      AttributeSet before = known;
      for (AttributeSet part : parts) {
        known = known.union(closure.of(known.intersection(part)).intersection(part));
      }
      if (known.equals(before)) {
        return known.containsAll(dependency.to());
      }
    }
  }

  /** Candidate keys of a part, by the dependencies that hold within it. */
  public List<AttributeSet> keysOf(AttributeSet part, BooleanSupplier stop) {
    var within = new ArrayList<Dependency>();
    int[] places = part.places().toArray();
    if (places.length <= SEARCHED_IN_FULL) {
      return minimalKeys(part, places);
    }
    for (Dependency dependency : dependencies) {
      if (part.containsAll(dependency.from())) {
        within.add(
            new Dependency(dependency.from(), closure.of(dependency.from()).intersection(part)));
      }
    }
    return CandidateKeys.of(part, within, new Closure(attributes.size(), within), stop).keys();
  }

  private List<AttributeSet> minimalKeys(AttributeSet part, int[] places) {
    return java.util.stream.IntStream.range(0, 1 << places.length)
        .mapToObj(chosen -> subset(places, chosen))
        .filter(set -> closure.of(set).containsAll(part))
        .filter(
            set ->
                set.places().noneMatch(place -> closure.of(set.without(place)).containsAll(part)))
        .sorted()
        .collect(Collectors.toList());
  }
}
