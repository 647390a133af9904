package joiner.meaning;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Evaluator;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.FarField;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Summed;
import joiner.model.TableId;
import joiner.rows.RowValues;

/**
 * The rows of a draft as formulas read them: the fields of a row, and over relationships those of
 * other rows. Columns are typed and parents found when first asked for, in time linear in rows.
 * Belongs to one thread.
 */
public final class FormulaRows {
  private final Draft draft;
  private final Evaluator evaluator;
  private final Map<TableId, RowValues> values = new HashMap<>();

  /** For each relationship the row, from 0, that has a parent's key. */
  private final Map<RelationshipId, Map<List<Value>, Integer>> parents = new HashMap<>();

  /** For each relationship the rows, from 0, that refer to a parent's key. */
  private final Map<RelationshipId, Map<List<Value>, List<Integer>>> children = new HashMap<>();

  /**
   * The rows of that draft.
   *
   * @param clock what is now where rows of others are summed up under a condition
   */
  public FormulaRows(Draft draft, Clock clock) {
    this.draft = draft;
    this.evaluator = new Evaluator(clock);
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
          case FarField far ->
              over(far.over(), own).map(row -> row.apply(far.field())).orElse(Value.NULL);
          case Summed summed ->
              over(summed.over(), own).map(row -> summed(summed, row)).orElse(Value.NULL);
          default -> throw new IllegalArgumentException(reference.name() + " is no field of a row");
        };
  }

  /** The row that a way leads to. */
  private Optional<Function<FieldId, Value>> over(
      List<RelationshipId> way, Function<FieldId, Value> own) {
    Function<FieldId, Value> row = own;
    for (RelationshipId id : way) {
      Relationship relationship = draft.design().relationship(id);
      Optional<Integer> parent = parent(relationship, row);
      if (parent.isEmpty()) {
        return Optional.empty();
      }
      int at = parent.get();
      RowValues values = of(relationship.parent());
      row = field -> values.value(field, at);
    }
    return Optional.of(row);
  }

  private Value summed(Summed summed, Function<FieldId, Value> parent) {
    Relationship relationship = draft.design().relationship(summed.children());
    List<Value> key = relationship.parentFields().stream().map(parent).toList();
    return Folded.of(
        summed,
        children
            .computeIfAbsent(summed.children(), id -> childPlaces(relationship))
            .getOrDefault(key, List.of())
            .stream()
            .map(row -> row(relationship.child(), row))
            .toList(),
        evaluator);
  }

  private Map<List<Value>, List<Integer>> childPlaces(Relationship relationship) {
    List<Optional<List<Value>>> keys = of(relationship.child()).tuples(relationship.childFields());
    Map<List<Value>, List<Integer>> places = new HashMap<>();
    for (int row = 0; row < keys.size(); row++) {
      int place = row;
      keys.get(row)
          .ifPresent(key -> places.computeIfAbsent(key, k -> new ArrayList<>()).add(place));
    }
    return places;
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
