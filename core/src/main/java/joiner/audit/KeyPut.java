package joiner.audit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.naming.Counts;

/**
 * Puts the keys of a table in some fields together, as its own unique key or for those who refer to
 * it; of a unique key it tells the values that occur again.
 */
final class KeyPut {
  /** Among more values slips are not looked for. */
  private static final int MOST_FOR_HINTS = 200_000;

  private final Table table;
  private final List<FieldId> fields;
  private final KeyReader reader;
  private final Keys keys;
  private final Optional<Constraint.Unique> unique;
  private final Broken repeated;

  /** A value that occurs again, with the row it was in first. */
  private record Again(List<Value> values, int before) {}

  KeyPut(
      Table table,
      List<FieldId> fields,
      KeyReader reader,
      Keys keys,
      Optional<Constraint.Unique> unique,
      int mostRows) {
    this.table = table;
    this.fields = List.copyOf(fields);
    this.reader = reader;
    this.keys = keys;
    this.unique = unique;
    this.repeated = new Broken(mostRows);
  }

  /** Puts the keys of so many rows, the first of which has that number, from 0. */
  void put(int rows, int first) {
    for (int i = 0; i < rows; i++) {
      if (reader.read(i)) {
        int before = keys.put(reader, first + i);
        if (before != NumberKeys.NEW && unique.isPresent()) {
          int row = i;
          repeated.add(first + i, () -> new Again(reader.values(row), before));
        }
      }
    }
  }

  /** All rows were put. */
  void end() {
    keys.complete();
    if (unique.isPresent()) {
      keys.forEachRepeated(
          (key, row, before) -> repeated.add(row, () -> new Again(KeyForm.values(key), before)));
    }
  }

  /** What was found, if it is a unique key. */
  KnownAudit.Found found() {
    var violations = new ArrayList<Violation>();
    if (unique.isPresent() && !repeated.isEmpty()) {
      violations.add(violation(unique.get()));
    }
    return new KnownAudit.Found(violations, unique.isPresent() ? slips() : List.of());
  }

  private Violation violation(Constraint.Unique key) {
    List<Integer> rows = repeated.numbers();
    var again = (Again) repeated.example();
    return new Violation(
        Violation.Kind.DUPLICATE_KEY,
        table.id(),
        fields,
        key.name(),
        repeated.count(),
        rows,
        Sentences.rows(rows, repeated.count())
            + (repeated.count() == 1 ? " repeats" : " repeat")
            + " a value of "
            + String.join(" and ", table.labelsOf(fields))
            + " that must occur once; the first is "
            + Sentences.quoted(again.values)
            + ", also in row "
            + Counts.of(again.before + 1)
            + ".");
  }

  /** Texts of a key of one field that differ only in blanks or case. */
  private List<Hint> slips() {
    var hints = new ArrayList<Hint>();
    if (fields.size() != 1 || keys.isInFiles() || keys.otherCount() > MOST_FOR_HINTS) {
      return hints;
    }
    Map<List<Value>, Slip> byFolded = new HashMap<>();
    keys.forEachOther(
        (key, row) -> {
          List<Value> values = KeyForm.values(key);
          if (values.getFirst() instanceof Value.Text) {
            Slip before = byFolded.putIfAbsent(Sentences.folded(values), new Slip(values, row + 1));
            if (before != null) {
              hints.add(before.hint(table, fields.getFirst(), values, row + 1));
            }
          }
        });
    return hints;
  }

  private record Slip(List<Value> values, int row) {
    Hint hint(Table table, FieldId field, List<Value> others, int otherRow) {
      return new Hint(
          table.id(),
          field,
          List.of(row, otherRow),
          Sentences.quoted(values)
              + " and "
              + Sentences.quoted(others)
              + " differ only in blanks or case; they may be one.");
    }
  }
}
