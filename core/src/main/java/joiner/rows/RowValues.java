package joiner.rows;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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

  /** One row, from 0, as formulas of the table read it. */
  public Function<Reference, Value> row(int row) {
    return reference ->
        switch (reference) {
          case OwnField own -> column(own.field())[row];
          default -> throw new IllegalArgumentException(reference.name() + " is no field of a row");
        };
  }

  private Value[] column(FieldId field) {
    return columns.computeIfAbsent(field, id -> read(table.field(id)));
  }

  private Value[] read(Field field) {
    Value[] values = new Value[rows.count()];
    for (int i = 0; i < values.length; i++) {
      values[i] = ValueReader.valueOrNull(rows.cell(i, field.id()), field.type());
    }
    return values;
  }

  /** The typed value of one field in every row. */
  public List<Value> values(Field field) {
    return new ArrayList<>(List.of(column(field.id())));
  }
}
