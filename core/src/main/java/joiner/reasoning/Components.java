package joiner.reasoning;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Reference;
import joiner.meaning.Constraint;

/**
 * Rules that have nothing to say about each other are asked about by themselves: those of one
 * component read, directly or over others of it, something in common. So an edit of one rule asks
 * anew only what it touches.
 */
final class Components {
  private static final String CLOCK = "the clock";

  private Components() {}

  /**
   * The components of some rules, each in the order of the rules; nearly linear in what is read.
   */
  static List<List<Constraint.Ruled>> of(List<Constraint.Ruled> rules) {
    int[] leader = new int[rules.size()];
    Map<Object, Integer> reader = new HashMap<>();
    for (int i = 0; i < leader.length; i++) {
      leader[i] = i;
      for (Object read : read(rules.get(i))) {
        Integer before = reader.putIfAbsent(read, i);
        if (before != null) {
          leader[find(leader, i)] = find(leader, before);
        }
      }
    }
    Map<Integer, List<Constraint.Ruled>> parts = new HashMap<>();
    var inOrder = new ArrayList<List<Constraint.Ruled>>();
    for (int i = 0; i < leader.length; i++) {
      parts
          .computeIfAbsent(
              find(leader, i),
              first -> {
                var part = new ArrayList<Constraint.Ruled>();
                inOrder.add(part);
                return part;
              })
          .add(rules.get(i));
    }
    return inOrder;
  }

  private static int find(int[] leader, int of) {
    int at = of;
    while (leader[at] != at) {
      leader[at] = leader[leader[at]];
      at = leader[at];
    }
    return at;
  }

  /** What a rule reads, as far as others may read it too. */
  private static Set<Object> read(Constraint.Ruled rule) {
    return formulas(rule)
        .flatMap(
            formula ->
                Stream.concat(
                    formula.reads().stream().map(Reference::name),
                    formula.readsClock() ? Stream.of(CLOCK) : Stream.empty()))
        .collect(Collectors.toSet());
  }

  /** The conditions of a rule that can be read. */
  static Stream<Checked.Sound> formulas(Constraint.Ruled rule) {
    return rule.formula().stream()
        .filter(Checked.Sound.class::isInstance)
        .map(Checked.Sound.class::cast);
  }
}
