package joiner.meaning;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Value;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import joiner.rows.RowValues;

/**
 * Which rows of a draft refer to which, by their places from 0. It is found once for each
 * relationship, when it is asked for first, in time linear in the rows. A reference is there where
 * all its fields have a value (MATCH SIMPLE), and equal values are those of the fields' types.
 * Belongs to one thread at a time.
 */
public final class Links {
  /** Instead of a place: no row is referred to. */
  public static final int NONE = -1;

  private final Draft draft;
  private final Function<TableId, RowValues> values;
  private final Map<RelationshipId, int[][]> children = new HashMap<>();
  private final Map<RelationshipId, int[]> parents = new HashMap<>();

  /** The rows of that draft. */
  public Links(Draft draft) {
    Map<TableId, RowValues> read = new HashMap<>();
    this.draft = draft;
    this.values =
        table ->
            read.computeIfAbsent(
                table, id -> new RowValues(draft.design().table(id), draft.rows().of(id)));
  }

  /** The rows of that draft, typed already for formulas. */
  public Links(Draft draft, FormulaRows rows) {
    this.draft = draft;
    this.values = rows::of;
  }

  /** The typed values of a table. */
  public RowValues values(TableId table) {
    return values.apply(table);
  }

  /** For each row of the parent the rows of the child that refer to it. */
  public int[][] children(Relationship r) {
    return children.computeIfAbsent(r.id(), id -> find(r));
  }

  /** For each row of the child the row of the parent that it refers to; {@link #NONE} for none. */
  public int[] parents(Relationship r) {
    return parents.computeIfAbsent(
        r.id(),
        id -> {
          int[] up = new int[draft.rows().of(r.child()).count()];
          Arrays.fill(up, NONE);
          int[][] down = children(r);
          for (int parent = 0; parent < down.length; parent++) {
            for (int child : down[parent]) {
              up[child] = parent;
            }
          }
          return up;
        });
  }

  private int[][] find(Relationship r) {
    List<Optional<List<Value>>> keys = values(r.parent()).tuples(r.parentFields());
    List<Optional<List<Value>>> links = values(r.child()).tuples(r.childFields());
    Map<List<Value>, List<Integer>> byKey = new HashMap<>();
    for (int row = 0; row < links.size(); row++) {
      int place = row;
      links
          .get(row)
          .ifPresent(key -> byKey.computeIfAbsent(key, k -> new ArrayList<>()).add(place));
    }
    return keys.stream()
        .map(key -> key.map(byKey::get).orElse(List.of()))
        .map(rows -> rows == null ? new int[0] : rows.stream().mapToInt(i -> i).toArray())
        .toArray(int[][]::new);
  }
}
