package joiner.meaning;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.FarField;
import joiner.model.FieldId;
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
  private final Draft draft;
  private final Map<TableId, RowValues> values = new HashMap<>();

  /** For each relationship the row, from 0, that has a parent's key. */
  private final Map<RelationshipId, Map<List<Value>, Integer>> parents = new HashMap<>();

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
    return row(field -> of(table).value(field, row));
  }

  /**
   * A row as its formulas read it.
   *
   * @param own gives the values of the row's own fields
   */
  public Function<Reference, Value> row(Function<FieldId, Value> own) {
    return reference ->
        switch (reference) {
          case OwnField field -> own.apply(field.field());
          case FarField far -> far(far, own);
          default -> throw new IllegalArgumentException(reference.name() + " is no field of a row");
        };
  }

  private Value far(FarField far, Function<FieldId, Value> own) {
    Function<FieldId, Value> row = own;
    for (RelationshipId id : far.over()) {
      Relationship relationship = draft.design().relationship(id);
      Optional<Integer> parent = parent(relationship, row);
      if (parent.isEmpty()) {
        return Value.NULL;
      }
      int at = parent.get();
      RowValues values = of(relationship.parent());
      row = field -> values.value(field, at);
    }
    return row.apply(far.field());
  }

  /** A row has no parent where a part of its reference is NULL (MATCH SIMPLE). */
  private Optional<Integer> parent(Relationship relationship, Function<FieldId, Value> child) {
    List<Value> key = relationship.childFields().stream().map(child).toList();
    return key.stream().anyMatch(Value.Null.class::isInstance)
        ? Optional.empty()
        : Optional.ofNullable(
            parents.computeIfAbsent(relationship.id(), id -> places(relationship)).get(key));
  }

  private Map<List<Value>, Integer> places(Relationship relationship) {
    List<Optional<List<Value>>> keys =
        of(relationship.parent()).tuples(relationship.parentFields());
    Map<List<Value>, Integer> places = HashMap.newHashMap(keys.size());
    for (int row = 0; row < keys.size(); row++) {
      int place = row;
      keys.get(row).ifPresent(key -> places.putIfAbsent(key, place));
    }
    return places;
  }
}
