package joiner.audit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Value;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.RowValues;

/** Looks for values of a key that occur more than once; expected time linear in rows. */
final class PlainKeys {
  private final Table table;
  private final RowValues rows;

  PlainKeys(Table table, RowValues rows) {
    this.table = table;
    this.rows = rows;
  }

  void addTo(String name, List<FieldId> key, List<Violation> violations, List<Hint> hints) {
    Map<List<Value>, Integer> first = new HashMap<>();
    var repeated = new ArrayList<Integer>();
    Optional<List<Value>> example = Optional.empty();
    List<Optional<List<Value>>> tuples = rows.tuples(key);
    for (int row = 0; row < tuples.size(); row++) {
      if (tuples.get(row).isPresent()
          && first.putIfAbsent(tuples.get(row).get(), row + 1) != null) {
        repeated.add(row + 1);
        example = example.isPresent() ? example : tuples.get(row);
      }
    }
    if (example.isPresent()) {
      String message =
          Sentences.rows(repeated, repeated.size())
              + (repeated.size() == 1 ? " repeats" : " repeat")
              + " a value of "
              + String.join(" and ", table.labelsOf(key))
              + " that must occur once; the first is "
              + Sentences.quoted(example.get())
              + ", also in row "
              + Counts.of(first.get(example.get()))
              + ".";
      violations.add(
          new Violation(
              Violation.Kind.DUPLICATE_KEY,
              table.id(),
              key,
              name,
              repeated.size(),
              repeated,
              message));
    }
    hintAtSlips(key, first, hints);
  }

  private void hintAtSlips(List<FieldId> key, Map<List<Value>, Integer> first, List<Hint> hints) {
    if (key.size() != 1) {
      return;
    }
    Map<List<Value>, List<Value>> byFolded = new HashMap<>();
    first.entrySet().stream()
        .sorted(Map.Entry.comparingByValue())
        .forEach(
            entry -> {
              List<Value> before =
                  byFolded.putIfAbsent(Sentences.folded(entry.getKey()), entry.getKey());
              if (before != null && entry.getKey().getFirst() instanceof Value.Text) {
                hints.add(
                    new Hint(
                        table.id(),
                        key.getFirst(),
                        List.of(first.get(before), entry.getValue()),
                        Sentences.quoted(before)
                            + " and "
                            + Sentences.quoted(entry.getKey())
                            + " differ only in blanks or case; they may be one."));
              }
            });
  }
}
