package joiner.edit;

import java.util.ArrayDeque;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.SequencedSet;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.TableId;

/**
 * A field of a table of a design.
 *
 * @param table whose it is
 */
record Referring(TableId table, FieldId field) {
  /**
   * The fields that hold values of a field because they refer to it, or to one that refers to it
   * (as the second half of a key that is a reference itself); the field is not among them.
   */
  static SequencedSet<Referring> to(Design design, Referring key) {
    var found = new LinkedHashSet<Referring>();
    var open = new ArrayDeque<Referring>();
    open.add(key);
    while (!open.isEmpty()) {
      Referring at = open.remove();
      for (Relationship down : design.childrenOf(at.table)) {
        int part = down.parentFields().indexOf(at.field);
        if (part >= 0) {
          var next = new Referring(down.child(), down.childFields().get(part));
          if (!next.equals(key) && found.add(next)) {
            open.add(next);
          }
        }
      }
    }
    return found;
  }

  /** The field whose values a field holds in the end: itself, or what it refers to. */
  static Referring root(Design design, Referring field) {
    var seen = new LinkedHashSet<Referring>();
    Referring at = field;
    while (seen.add(at)) {
      Optional<Referring> up = parent(design, at);
      if (up.isEmpty()) {
        return at;
      }
      at = up.get();
    }
    return at;
  }

  private static Optional<Referring> parent(Design design, Referring field) {
    return design.parentsOf(field.table).stream()
        .filter(up -> up.childFields().contains(field.field))
        .map(
            up ->
                new Referring(
                    up.parent(), up.parentFields().get(up.childFields().indexOf(field.field))))
        .findFirst();
  }
}
