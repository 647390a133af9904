package joiner.dependency;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.function.BooleanSupplier;

/**
 * All minimal keys of a set of attributes (Cláudio Lucchesi, Sylvia Osborn, "Candidate keys for
 * relations", 1978). Time is polynomial in the dependencies and the number of keys found, which may
 * itself be exponential; so it can be stopped.
 *
 * @param keys smaller ones first
 * @param complete whether these are all of them
 */
public record CandidateKeys(List<AttributeSet> keys, boolean complete) {
  public CandidateKeys {
    keys = List.copyOf(keys);
  }

  /** The keys of all attributes, until {@code stop} says so. */
  static CandidateKeys of(
      AttributeSet all, List<Dependency> dependencies, Closure closure, BooleanSupplier stop) {
    var found = new LinkedHashSet<AttributeSet>();
    found.add(minimal(all, all, closure));
    var queue = new ArrayList<>(found);
    for (int at = 0; at < queue.size(); at++) {
      for (Dependency dependency : dependencies) {
        if (stop.getAsBoolean()) {
          return sorted(found, false);
        }
        AttributeSet candidate = dependency.from().union(queue.get(at).minus(dependency.to()));
        if (found.stream().noneMatch(candidate::containsAll)) {
          AttributeSet key = minimal(candidate, all, closure);
          found.add(key);
          queue.add(key);
        }
      }
    }
    return sorted(found, true);
  }

  private static CandidateKeys sorted(LinkedHashSet<AttributeSet> found, boolean complete) {
    return new CandidateKeys(found.stream().sorted().toList(), complete);
  }

  /** A minimal key within a set that determines all. */
  private static AttributeSet minimal(AttributeSet superkey, AttributeSet all, Closure closure) {
    AttributeSet key = superkey;
    for (int place : superkey.places().toArray()) {
      AttributeSet smaller = key.without(place);
      if (closure.of(smaller).containsAll(all)) {
        key = smaller;
      }
    }
    return key;
  }
}
