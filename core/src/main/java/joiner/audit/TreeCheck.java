package joiner.audit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.model.Table;

/** Looks for rows that lead back to themselves, in time linear in rows. */
final class TreeCheck implements RowsCheck {
  private final Table table;
  private final Constraint.Tree tree;
  private final List<TypedCells> keys;
  private final List<TypedCells> up;
  private final Map<List<Value>, Integer> places = new HashMap<>();
  private final List<List<Value>> parents = new ArrayList<>();
  private final Broken broken;

  TreeCheck(
      Table table, Constraint.Tree tree, List<TypedCells> keys, List<TypedCells> up, int mostRows) {
    this.table = table;
    this.tree = tree;
    this.keys = List.copyOf(keys);
    this.up = List.copyOf(up);
    this.broken = new Broken(mostRows);
  }

  @Override
  public void check(int rows, int first) {
    for (int i = 0; i < rows; i++) {
      places.putIfAbsent(values(keys, i), first + i);
      parents.add(values(up, i));
    }
  }

  private static List<Value> values(List<TypedCells> fields, int row) {
    return fields.stream().map(field -> field.value(row)).toList();
  }

  @Override
  public KnownAudit.Found found() {
    int[] reachedBy = new int[parents.size()]; // The walk, from 1, in which a row was met.
    for (int start = 0; start < reachedBy.length; start++) {
      int row = start;
      while (row >= 0 && reachedBy[row] == 0) {
        reachedBy[row] = start + 1;
        row = parent(row);
      }
      if (row >= 0 && reachedBy[row] == start + 1) {
        circle(row);
      }
    }
    return RuleCheck.found(table, tree.fields(), tree.rule(), broken);
  }

  private void circle(int first) {
    int row = first;
    do {
      broken.add(row);
      row = parent(row);
    } while (row != first);
  }

  private int parent(int row) {
    return places.getOrDefault(parents.get(row), -1);
  }
}
