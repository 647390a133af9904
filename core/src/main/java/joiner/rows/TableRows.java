package joiner.rows;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import joiner.model.FieldId;
import joiner.model.Table;

/**
 * Rows in memory, as a source.
 *
 * @param fields the fields of the table that are its columns, in order
 */
public record TableRows(Table table, List<FieldId> fields, Rows rows) implements RowSource {
  public TableRows {
    fields = List.copyOf(fields);
  }

  /** With all fields of the table. */
  public static TableRows of(Table table, Rows rows) {
    return new TableRows(table, table.fieldIds(), rows);
  }

  @Override
  public List<String> headers() {
    return table.namesOf(fields);
  }

  @Override
  public OptionalLong count() {
    return OptionalLong.of(rows.count());
  }

  @Override
  public void scan(TableSink sink) {
    int[] places = headers().stream().mapToInt(sink::column).toArray();
    for (int row = 0; row < rows.count(); row++) {
      for (int i = 0; i < places.length; i++) {
        Optional<String> cell = rows.cell(row, fields.get(i));
        if (cell.isPresent()) {
          sink.cell(places[i], cell.get());
        }
      }
      sink.endRow();
    }
  }
}
