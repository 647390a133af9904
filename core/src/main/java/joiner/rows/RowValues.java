package joiner.rows;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.Table;

/** The rows of a table as typed values, column by column; what does not fit its type is NULL. */
public final class RowValues {
  private final Rows rows;
  private final Map<String, Field> fields;
  private final Map<String, Value[]> columns = new java.util.HashMap<>();

  /** The typed values of those rows; columns are read when first asked for. */
  public RowValues(Table table, Rows rows) {
    this.rows = rows;
    this.fields = table.fieldsByName();
  }

  /** One row, from 0, as a function from field name to value. */
  public Function<String, Value> row(int row) {
    return name -> column(name)[row];
  }

  private Value[] column(String name) {
    return columns.computeIfAbsent(name, this::read);
  }

  private Value[] read(String name) {
    Field field = fields.get(name);
    if (field == null) {
      throw new IllegalArgumentException("no field " + name);
    }
    Value[] values = new Value[rows.count()];
    for (int i = 0; i < values.length; i++) {
      values[i] = ValueReader.valueOrNull(rows.cell(i, field.id()), field.type());
    }
    return values;
  }

  /** The typed value of one field in every row. */
  public List<Value> values(Field field) {
    return new ArrayList<>(List.of(column(field.name())));
  }
}
