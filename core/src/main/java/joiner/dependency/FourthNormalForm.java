package joiner.dependency;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What functional and multivalued dependencies together say about fourth normal form (Ronald Fagin,
 * 1977). Rests on the dependency basis: the finest division of the other attributes such that a set
 * multidetermines exactly the unions of its parts (Catriel Beeri, "On the membership problem for
 * functional and multivalued dependencies in relational databases", 1980); it takes time polynomial
 * in the dependencies and attributes.
 */
public final class FourthNormalForm {
  /** Widest part whose subsets are all searched for a hidden violation. */
  private static final int SEARCHED_IN_FULL = 12;

  private final Scheme scheme;
  private final List<Multivalued> multivalued;
  private final AttributeSet all;

  /** The dependencies of a scheme with multivalued ones. */
  public FourthNormalForm(Scheme scheme, List<Multivalued> multivalued) {
    this.scheme = scheme;
    this.multivalued = List.copyOf(multivalued);
    this.all = AttributeSet.first(scheme.attributes().size());
  }

  /** The dependency basis of a set: the parts of the other attributes, by their first attribute. */
  public List<AttributeSet> basis(AttributeSet set) {
    List<AttributeSet> blocks = new ArrayList<>();
    if (!all.minus(set).isEmpty()) {
      blocks.add(all.minus(set));
    }
    boolean changed = true;
    while (changed) {
      changed = false;
      for (Multivalued dependency : asMultivalued()) {
        List<AttributeSet> refined = refined(blocks, dependency);
        changed |= refined.size() > blocks.size();
        blocks = refined;
      }
    }
    blocks.sort((one, other) -> first(one) - first(other));
    return blocks;
  }

  private static int first(AttributeSet block) {
    return block.places().findFirst().orElse(0);
  }

  private static List<AttributeSet> refined(List<AttributeSet> blocks, Multivalued dependency) {
    var refined = new ArrayList<AttributeSet>();
    for (AttributeSet block : blocks) {
      AttributeSet inside = block.intersection(dependency.to());
      AttributeSet outside = block.minus(dependency.to());
      boolean cut =
          block.intersection(dependency.from()).isEmpty()
              && !inside.isEmpty()
              && !outside.isEmpty();
      if (cut) {
        refined.add(inside);
        refined.add(outside);
      } else {
        refined.add(block);
      }
    }
    return refined;
  }

  /** Functional dependencies are multivalued too, one attribute at a time. */
  private List<Multivalued> asMultivalued() {
    var all = new ArrayList<>(multivalued);
    for (Dependency dependency : scheme.dependencies()) {
      dependency
          .to()
          .places()
          .forEach(to -> all.add(new Multivalued(dependency.from(), AttributeSet.of(to))));
    }
    return all;
  }

  /** Whether the multivalued dependency follows. */
  public boolean implies(Multivalued dependency) {
    AttributeSet left = dependency.to().minus(dependency.from());
    for (AttributeSet block : basis(dependency.from())) {
      if (left.containsAll(block)) {
        left = left.minus(block);
      }
    }
    return left.isEmpty();
  }

  /**
   * Everything a set determines by both kinds of dependency: attributes that stand alone in the
   * basis and on the right of a functional dependency without being on its left.
   */
  public AttributeSet closure(AttributeSet set) {
    AttributeSet closure = set;
    for (AttributeSet block : basis(set)) {
      if (block.size() == 1 && isDecidedSomewhere(first(block))) {
        closure = closure.union(block);
      }
    }
    return closure;
  }

  private boolean isDecidedSomewhere(int attribute) {
    return scheme.dependencies().stream()
        .anyMatch(d -> d.to().contains(attribute) && !d.from().contains(attribute));
  }

  /** Every given multivalued dependency that breaks fourth normal form. */
  public List<Violation> violations() {
    var violations = new ArrayList<Violation>();
    for (Multivalued dependency : multivalued) {
      AttributeSet to = dependency.to().minus(dependency.from());
      AttributeSet others = all.minus(dependency.from()).minus(to);
      boolean trivial = to.isEmpty() || others.isEmpty();
      if (!trivial && !closure(dependency.from()).containsAll(all)) {
        violations.add(
            new Violation(
                NormalForm.FOURTH,
                new Dependency(dependency.from(), to),
                words(dependency.from())
                    + " is no key, and its values of "
                    + words(to)
                    + " have nothing to do with "
                    + words(others)
                    + "."));
      }
    }
    return violations;
  }

  private String words(AttributeSet set) {
    return set.isEmpty() ? "nothing at all" : String.join(", ", scheme.names(set));
  }

  /**
   * Tables in fourth normal form that lose no row, split at one violation after the other. Parts
   * wider than 12 attributes are searched at the left sides of the given dependencies only.
   */
  public Decomposition decomposition() {
    var done = new ArrayList<AttributeSet>();
    var open = new ArrayDeque<>(List.of(all));
    boolean complete = true;
    while (!open.isEmpty()) {
      AttributeSet part = open.poll();
      Optional<Multivalued> violation = violating(part);
      if (violation.isPresent()) {
        open.add(violation.get().from().union(violation.get().to()));
        open.add(part.minus(violation.get().to()));
      } else {
        complete &= part.size() <= SEARCHED_IN_FULL;
        done.add(part);
      }
    }
    List<AttributeSet> parts = Scheme.withoutContained(done);
    List<Dependency> lost =
        scheme.minimalCover().stream().filter(d -> !scheme.keeps(parts, d)).toList();
    return new Decomposition(parts, true, lost, complete);
  }

  /** A set within the part that is no key of it, with a block of its basis that can go. */
  private Optional<Multivalued> violating(AttributeSet part) {
    for (Dependency dependency : scheme.dependencies()) {
      Optional<Multivalued> found = violating(part, dependency.from());
      if (found.isPresent()) {
        return found;
      }
    }
    for (Multivalued dependency : multivalued) {
      Optional<Multivalued> found = violating(part, dependency.from());
      if (found.isPresent()) {
        return found;
      }
    }
    int[] places = part.places().toArray();
    if (places.length > SEARCHED_IN_FULL) {
      return Optional.empty();
    }
    for (int chosen = 0; chosen < 1 << places.length; chosen++) {
      Optional<Multivalued> found = violating(part, Scheme.subset(places, chosen));
      if (found.isPresent()) {
        return found;
      }
    }
    return Optional.empty();
  }

  private Optional<Multivalued> violating(AttributeSet part, AttributeSet from) {
    if (!part.containsAll(from) || closure(from).containsAll(part)) {
      return Optional.empty();
    }
    List<AttributeSet> blocks =
        basis(from).stream()
            .map(block -> block.intersection(part))
            .filter(block -> !block.isEmpty())
            .toList();
    AttributeSet decided = closure(from).intersection(part).minus(from);
    if (!decided.isEmpty() && !decided.equals(part.minus(from))) {
      return Optional.of(new Multivalued(from, decided));
    }
    return blocks.size() < 2
        ? Optional.empty()
        : Optional.of(new Multivalued(from, blocks.getFirst()));
  }
}
