package joiner.audit;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import joiner.expression.Value;
import joiner.model.Relationship;
import joiner.model.Table;

/**
 * Looks for rows whose parent is not there (MATCH SIMPLE). Where the parents are not all known yet,
 * as in a table that refers to itself, what was asked is answered at the end.
 */
final class ReferenceCheck implements AutoCloseable {
  /** Among so many missing parents one is looked for that only was mistyped. */
  private static final int MOST_LOOKED_AT = 1_000;

  /** Among more parents mistyped ones are not looked for. */
  private static final int MOST_PARENTS = 2_000_000;

  private final Relationship relationship;
  private final Table parent;
  private final KeyReader reader;
  private final Keys parents;
  private final Spilled asked = new Spilled();
  private final AskedKeys together = new AskedKeys();
  private final Broken orphans;

  /** What the first orphans point to, by row. */
  private final TreeMap<Integer, List<Value>> missing = new TreeMap<>();

  ReferenceCheck(
      Relationship relationship, Table parent, KeyReader reader, Keys parents, int mostRows) {
    this.relationship = relationship;
    this.parent = parent;
    this.reader = reader;
    this.parents = parents;
    this.orphans = new Broken(mostRows);
  }

  Relationship relationship() {
    return relationship;
  }

  /** Looks at so many rows that were read, the first of which has that number, from 0. */
  void check(int rows, int first) {
    boolean known = parents.isKnown();
    for (int i = 0; i < rows; i++) {
      if (!reader.read(i)) {
        continue;
      }
      if (!known) {
        KeyForm bytes = reader.asBytes();
        asked.write(bytes.bytes(), bytes.length(), first + i);
      } else if (!reader.isNumber()) {
        together.add(reader.asBytes(), i);
      } else if (!parents.has(reader)) {
        add(first + i, reader.values(i));
      }
    }
    parents.forEachMissing(
        together, i -> add(first + together.row(i), reader.values(together.row(i))));
    together.clear();
  }

  private void add(int row, List<Value> values) {
    orphans.add(row);
    missing.put(row, values);
    if (missing.size() > MOST_LOOKED_AT) {
      missing.pollLastEntry();
    }
  }

  /** What was found; all parents are there now. */
  KnownAudit.Found found() {
    parents.forEachMissing(asked, (key, row) -> add(row, KeyForm.values(key)));
    if (orphans.isEmpty()) {
      return KnownAudit.Found.NOTHING;
    }
    List<Integer> rows = orphans.numbers();
    String message =
        Sentences.rows(rows, orphans.count())
            + (orphans.count() == 1 ? " points" : " point")
            + " to "
            + parent.noun().indefinite()
            + " that does not exist, for example "
            + Sentences.quoted(missing.firstEntry().getValue())
            + "."
            + nearMiss();
    return KnownAudit.Found.of(
        new Violation(
            Violation.Kind.ORPHAN,
            relationship.child(),
            relationship.childFields(),
            relationship.name(),
            orphans.count(),
            rows,
            message));
  }

  /** The first missing parent that differs from one that is there only in blanks or case. */
  private String nearMiss() {
    if (parents.isInFiles() || parents.otherCount() > MOST_PARENTS) {
      return "";
    }
    Map<List<Value>, List<Value>> wanted = new LinkedHashMap<>();
    missing.values().forEach(values -> wanted.putIfAbsent(Sentences.folded(values), values));
    Map<List<Value>, List<Value>> near = new HashMap<>();
    parents.forEachOther(
        (key, row) -> {
          List<Value> values = KeyForm.values(key);
          List<Value> folded = Sentences.folded(values);
          if (wanted.containsKey(folded)) {
            near.putIfAbsent(folded, values);
          }
        });
    return wanted.entrySet().stream()
        .filter(entry -> near.containsKey(entry.getKey()))
        .findFirst()
        .map(
            entry ->
                " "
                    + Sentences.quoted(entry.getValue())
                    + " differs from "
                    + Sentences.quoted(near.get(entry.getKey()))
                    + " only in blanks or case.")
        .orElse("");
  }

  @Override
  public void close() {
    asked.close();
  }
}
