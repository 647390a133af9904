package joiner.ddl;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.engine.Dialect;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * Rows as SQL literals. A cell that does not fit its type goes as it is, for the engine to refuse.
 */
final class RowLiterals {
  private final List<Field> fields;
  private final Rows rows;
  private final Dialect dialect;

  RowLiterals(Table table, Rows rows, Dialect dialect) {
    this.fields = ShippedRows.fields(table);
    this.rows = rows;
    this.dialect = dialect;
  }

  String of(int row) {
    return fields.stream()
        .map(field -> literal(rows.cell(row, field.id()), field))
        .collect(Collectors.joining(", "));
  }

  private String literal(Optional<String> cell, Field field) {
    if (cell.isEmpty()) {
      return "NULL";
    }
    return switch (ValueReader.read(cell.get(), field.type())) {
      case ReadValue.Fits(Value.Bytes file) when file.count() > dialect.mostBytesWritten() ->
          "NULL"; // RowStatements says so.
      case ReadValue.Fits fits -> dialect.literal(fits.value());
      case ReadValue.Unfit unfit -> Dialect.quoted(cell.get());
    };
  }
}
