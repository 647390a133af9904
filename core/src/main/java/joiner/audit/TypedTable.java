package joiner.audit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.RowValues;
import joiner.rows.Rows;

/** One table's rows as typed values; a cell of the wrong type is NULL. */
final class TypedTable {
  private final Table table;
  private final Rows rows;
  private final RowValues values;
  private final Map<FieldId, List<Value>> columns = new HashMap<>();

  TypedTable(Table table, Rows rows) {
    this.table = table;
    this.rows = rows;
    this.values = new RowValues(table, rows);
  }

  int count() {
    return rows.count();
  }

  Rows rows() {
    return rows;
  }

  Function<Reference, Value> row(int row) {
    return values.row(row);
  }

  List<Value> column(Field field) {
    return columns.computeIfAbsent(field.id(), id -> values.values(field));
  }

  /** The values of those fields in every row; empty where one of them is NULL. */
  List<Optional<List<Value>>> tuples(List<FieldId> fields) {
    List<List<Value>> parts = fields.stream().map(id -> column(table.field(id))).toList();
    var tuples = new ArrayList<Optional<List<Value>>>(count());
    for (int row = 0; row < count(); row++) {
      tuples.add(tuple(parts, row));
    }
    return tuples;
  }

  private static Optional<List<Value>> tuple(List<List<Value>> parts, int row) {
    var tuple = new ArrayList<Value>(parts.size());
    for (List<Value> part : parts) {
      Value value = part.get(row);
      if (value instanceof Value.Null) {
        return Optional.empty();
      }
      tuple.add(value);
    }
    return Optional.of(tuple);
  }
}
