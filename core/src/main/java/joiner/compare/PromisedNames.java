package joiner.compare;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.engine.Answers;
import joiner.engine.Dialect;

/**
 * Gives the checks of a found schema the names of the promised ones that say the same, where the
 * engine makes names up.
 */
public final class PromisedNames {
  private PromisedNames() {}

  /** The found schema with the promised names; as it is where the engine keeps names. */
  public static Catalog in(Catalog found, Catalog promised, Dialect dialect, Answers answers) {
    if (dialect.keepsConstraintNames()) {
      return found;
    }
    Map<String, CatalogTable> known = new HashMap<>();
    promised.tables().forEach(t -> known.put(dialect.identifiers().stored(t.name()), t));
    return new Catalog(
        found.tables().stream()
            .map(
                t -> known.containsKey(t.name()) ? in(t, known.get(t.name()), dialect, answers) : t)
            .toList(),
        found.sequences(),
        found.around());
  }

  private static CatalogTable in(
      CatalogTable found, CatalogTable promised, Dialect dialect, Answers answers) {
    Map<String, Deque<String>> names = new HashMap<>();
    for (Check check : promised.checks()) {
      names
          .computeIfAbsent(answers.worded(check.condition()), words -> new ArrayDeque<>())
          .add(dialect.identifiers().stored(check.name()));
    }
    List<Check> checks = new ArrayList<>();
    for (Check check : found.checks()) {
      Deque<String> same = names.getOrDefault(check.condition().sql(), new ArrayDeque<>());
      checks.add(same.isEmpty() ? check : new Check(same.poll(), check.condition()));
    }
    return found.withChecks(checks);
  }
}
