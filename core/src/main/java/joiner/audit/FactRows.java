package joiner.audit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.model.KnownFact;
import joiner.model.TableId;
import joiner.rows.Rows;

/** What the rows of a table say about a fact, by what decides. */
final class FactRows {
  private final KnownFact fact;

  /** By what decides: what is decided, in which rows. */
  private final Map<List<Optional<String>>, Map<List<Optional<String>>, List<Integer>>> groups =
      new LinkedHashMap<>();

  private boolean undecided;

  FactRows(Rows rows, KnownFact fact) {
    this.fact = fact;
    for (int row = 0; row < rows.count(); row++) {
      List<Optional<String>> by = rows.row(row, fact.determinant());
      List<Optional<String>> decided = rows.row(row, fact.dependents());
      if (by.stream().allMatch(Optional::isPresent)) {
        groups
            .computeIfAbsent(by, b -> new LinkedHashMap<>())
            .computeIfAbsent(decided, d -> new ArrayList<>())
            .add(row);
      } else {
        undecided |= decided.stream().anyMatch(Optional::isPresent);
      }
    }
  }

  /** Whether something is said twice and no row contradicts it. */
  boolean isShown() {
    return !undecided
        && groups.values().stream().allMatch(said -> said.size() == 1)
        && twice().isPresent();
  }

  /** The fewest rows that say the same. */
  private Optional<List<Integer>> twice() {
    return groups.values().stream()
        .filter(said -> said.size() == 1)
        .map(said -> said.values().iterator().next())
        .filter(rows -> rows.size() > 1)
        .min(Comparator.comparingInt(List::size));
  }

  private OptionalInt once() {
    return groups.values().stream()
        .filter(said -> said.size() == 1)
        .map(said -> said.values().iterator().next())
        .filter(rows -> rows.size() == 1)
        .mapToInt(List::getFirst)
        .findFirst();
  }

  private List<Anomaly.Disagreement> disagreements() {
    return groups.values().stream()
        .filter(said -> said.size() > 1)
        .map(
            said ->
                new Anomaly.Disagreement(
                    said.entrySet().stream()
                        .map(s -> new Anomaly.Said(s.getKey(), s.getValue()))
                        .sorted(Comparator.comparing(s -> -s.rows().size()))
                        .toList()))
        .toList();
  }

  Anomaly anomaly(TableId table, boolean known, double score) {
    return new Anomaly(
        table, fact, known, twice().orElse(List.of()), once(), disagreements(), score);
  }
}
