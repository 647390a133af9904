package joiner.meaning;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.FarField;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import joiner.rows.RowValues;

/**
 * The rows of a draft as formulas read them: the fields of a row, and over relationships those of
 * other rows. Columns are typed and parents found when first asked for, in time linear in rows.
 * Belongs to one thread.
 */
public final class FormulaRows {
  private static final int NONE = -1;

  private final Draft draft;
  private final Map<TableId, RowValues> values = new HashMap<>();

  /** For each row of the child, from 0, which row is its parent. */
  private final Map<RelationshipId, int[]> parents = new HashMap<>();

  /** The rows of that draft. */
  public FormulaRows(Draft draft) {
    this.draft = draft;
  }

  /** The typed values of one table. */
  public RowValues of(TableId table) {
    return values.computeIfAbsent(
        table, id -> new RowValues(draft.design().table(id), draft.rows().of(id)));
  }

  /** One row of a table, from 0, as its formulas read it. */
  public Function<Reference, Value> row(TableId table, int row) {
    return reference ->
        switch (reference) {
          case OwnField own -> of(table).value(own.field(), row);
          case FarField far -> far(far, row);
          default -> throw new IllegalArgumentException(reference.name() + " is no field of a row");
        };
  }

  private Value far(FarField far, int row) {
    int at = row;
    for (RelationshipId id : far.over()) {
      at = parentsOf(draft.design().relationship(id))[at];
      if (at == NONE) {
        return Value.NULL;
      }
    }
    TableId end = draft.design().relationship(far.over().getLast()).parent();
    return of(end).value(far.field(), at);
  }

  private int[] parentsOf(Relationship relationship) {
    int[] known = parents.get(relationship.id());
    if (known == null) {
      known = find(relationship);
      parents.put(relationship.id(), known);
    }
    return known;
  }

  /** A row has no parent where a part of its reference is NULL (MATCH SIMPLE). */
  private int[] find(Relationship relationship) {
    List<Optional<List<Value>>> keys =
        of(relationship.parent()).tuples(relationship.parentFields());
    Map<List<Value>, Integer> places = HashMap.newHashMap(keys.size());
    for (int row = 0; row < keys.size(); row++) {
      int place = row;
      keys.get(row).ifPresent(key -> places.putIfAbsent(key, place));
    }
    return of(relationship.child()).tuples(relationship.childFields()).stream()
        .mapToInt(tuple -> tuple.map(places::get).orElse(NONE))
        .toArray();
  }
}
