package joiner.rows;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Table;

/** The rows of a table as typed values, column by column; what does not fit its type is NULL. */
public final class RowValues {
  private final Table table;
  private final Rows rows;
  private final Map<FieldId, Value[]> columns = new HashMap<>();

  /** The typed values of those rows; columns are read when first asked for. */
  public RowValues(Table table, Rows rows) {
    this.table = table;
    this.rows = rows;
  }

  /** The rows as they were given. */
  public Rows rows() {
    return rows;
  }

  /** How many rows there are. */
  public int count() {
    return rows.count();
  }

  /** One row, from 0, as formulas read it that look at no other row. */
  public Function<Reference, Value> row(int row) {
    return reference ->
        switch (reference) {
          case OwnField own -> value(own.field(), row);
          default -> throw new IllegalArgumentException(reference.name() + " is no field of a row");
        };
  }

  /** The value of a field in a row, from 0. */
  public Value value(FieldId field, int row) {
    return column(field)[row];
  }

  private Value[] column(FieldId field) {
    Value[] known = columns.get(field);
    if (known == null) {
      known = read(table.field(field));
      columns.put(field, known);
    }
    return known;
  }

  private Value[] read(Field field) {
    Value[] values = new Value[rows.count()];
    for (int i = 0; i < values.length; i++) {
      values[i] = ValueReader.valueOrNull(rows.cell(i, field.id()), field.type());
    }
    return values;
  }

  /** The values of one field in every row. */
  public List<Value> values(FieldId field) {
    return Collections.unmodifiableList(Arrays.asList(column(field)));
  }

  /** The values of those fields in every row; empty where one of them is NULL. */
  public List<Optional<List<Value>>> tuples(List<FieldId> fields) {
    List<List<Value>> parts = fields.stream().map(this::values).toList();
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
