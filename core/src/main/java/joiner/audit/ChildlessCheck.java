package joiner.audit;

import java.util.List;
import joiner.expression.Value;
import joiner.model.Relationship;
import joiner.model.Table;

/**
 * Looks for rows that must have a child and have none. Children go by after their parents, so what
 * was asked is answered at the end.
 */
final class ChildlessCheck implements AutoCloseable {
  private final Relationship relationship;
  private final Table parent;
  private final Table child;
  private final KeyReader reader;
  private final Keys children;
  private final Spilled asked = new Spilled();
  private final Broken childless;

  ChildlessCheck(
      Relationship relationship,
      Table parent,
      Table child,
      KeyReader reader,
      Keys children,
      int mostRows) {
    this.relationship = relationship;
    this.parent = parent;
    this.child = child;
    this.reader = reader;
    this.children = children;
    this.childless = new Broken(mostRows);
  }

  /** Looks at so many rows that were read, the first of which has that number, from 0. */
  void check(int rows, int first) {
    for (int i = 0; i < rows; i++) {
      if (reader.read(i)) {
        KeyForm bytes = reader.asBytes();
        asked.write(bytes.bytes(), bytes.length(), first + i);
      } else {
        int row = i;
        childless.add(first + i, () -> reader.values(row)); // Nothing can refer to it.
      }
    }
  }

  /** What was found; all children are there now. */
  @SuppressWarnings("unchecked") // What is kept of a row is what was given above.
  KnownAudit.Found found() {
    children.forEachMissing(asked, (key, row) -> childless.add(row, () -> KeyForm.values(key)));
    if (childless.isEmpty()) {
      return KnownAudit.Found.NOTHING;
    }
    List<Integer> rows = childless.numbers();
    String message =
        Sentences.rows(rows, childless.count())
            + (childless.count() == 1 ? " has no " : " have no ")
            + child.noun().singular()
            + ", for example "
            + Sentences.quoted((List<Value>) childless.example())
            + "; each "
            + parent.noun().singular()
            + " must have "
            + (child.isUnique(relationship.childFields()) ? "one." : "one or more.");
    return KnownAudit.Found.of(
        new Violation(
            Violation.Kind.CHILDLESS,
            parent.id(),
            relationship.parentFields(),
            relationship.name(),
            childless.count(),
            rows,
            message));
  }

  @Override
  public void close() {
    asked.close();
  }
}
