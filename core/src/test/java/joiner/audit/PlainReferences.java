package joiner.audit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import joiner.expression.Value;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.rows.RowValues;

/** Looks for rows whose parent is not there (MATCH SIMPLE); expected time linear in rows. */
final class PlainReferences {
  private final Table child;
  private final Table parent;
  private final Relationship relationship;
  private final RowValues rows;
  private final RowValues parentRows;

  PlainReferences(Design design, Relationship relationship, RowValues rows, RowValues parentRows) {
    this.child = design.table(relationship.child());
    this.parent = design.table(relationship.parent());
    this.relationship = relationship;
    this.rows = rows;
    this.parentRows = parentRows;
  }

  void addTo(List<Violation> violations) {
    Set<List<Value>> known = new java.util.LinkedHashSet<>();
    parentRows.tuples(relationship.parentFields()).forEach(tuple -> tuple.ifPresent(known::add));
    var orphans = new ArrayList<Integer>();
    var missing = new ArrayList<List<Value>>();
    List<Optional<List<Value>>> tuples = rows.tuples(relationship.childFields());
    for (int row = 0; row < tuples.size(); row++) {
      Optional<List<Value>> tuple = tuples.get(row);
      if (tuple.isPresent() && !known.contains(tuple.get())) {
        orphans.add(row + 1);
        missing.add(tuple.get());
      }
    }
    if (!orphans.isEmpty()) {
      violations.add(
          new Violation(
              Violation.Kind.ORPHAN,
              child.id(),
              relationship.childFields(),
              relationship.name(),
              orphans.size(),
              orphans,
              message(orphans, missing, known)));
    }
  }

  /** Adds the parents without a child, where each must have one. */
  void addChildless(List<Violation> violations) {
    var known = new java.util.HashSet<>(rows.tuples(relationship.childFields()));
    known.remove(Optional.<List<Value>>empty());
    List<Optional<List<Value>>> tuples = parentRows.tuples(relationship.parentFields());
    List<Integer> childless =
        IntStream.range(0, tuples.size())
            .filter(row -> !known.contains(tuples.get(row)))
            .mapToObj(row -> row + 1)
            .toList();
    if (childless.isEmpty()) {
      return;
    }
    List<Value> first =
        relationship.parentFields().stream()
            .map(field -> parentRows.value(field, childless.getFirst() - 1))
            .toList();
    violations.add(
        new Violation(
            Violation.Kind.CHILDLESS,
            parent.id(),
            relationship.parentFields(),
            relationship.name(),
            childless.size(),
            childless,
            Sentences.rows(childless, childless.size())
                + (childless.size() == 1 ? " has no " : " have no ")
                + child.noun().singular()
                + ", for example "
                + Sentences.quoted(first)
                + "; each "
                + parent.noun().singular()
                + " must have "
                + (child.isUnique(relationship.childFields()) ? "one." : "one or more.")));
  }

  private String message(List<Integer> orphans, List<List<Value>> missing, Set<List<Value>> known) {
    String base =
        Sentences.rows(orphans, orphans.size())
            + (orphans.size() == 1 ? " points" : " point")
            + " to "
            + parent.noun().indefinite()
            + " that does not exist, for example "
            + Sentences.quoted(missing.getFirst())
            + ".";
    return base + nearMiss(missing, known);
  }

  private static String nearMiss(List<List<Value>> missing, Set<List<Value>> known) {
    Map<List<Value>, List<Value>> folded = new HashMap<>();
    known.forEach(values -> folded.putIfAbsent(Sentences.folded(values), values));
    for (List<Value> values : missing) {
      List<Value> near = folded.get(Sentences.folded(values));
      if (near != null) {
        return " "
            + Sentences.quoted(values)
            + " differs from "
            + Sentences.quoted(near)
            + " only in blanks or case.";
      }
    }
    return "";
  }
}
