package joiner.database;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/** Rows as values, whatever the engine's way to write them. */
final class LiveRows {
  private LiveRows() {}

  /** The values of some fields of a table, a row each, of the table of that name in a draft. */
  static List<List<Value>> values(Table table, List<String> names, Draft of) {
    Table is = of.design().tableNamed(table.name()).orElseThrow();
    Rows rows = of.rows().of(is.id());
    var all = new ArrayList<List<Value>>();
    for (int row = 0; row < rows.count(); row++) {
      var values = new ArrayList<Value>();
      for (String name : names) {
        Optional<String> cell = rows.cell(row, is.fieldNamed(name).orElseThrow().id());
        FieldType type = table.fieldNamed(name).orElseThrow().type();
        values.add(ValueReader.valueOrNull(inForm(cell, type), type));
      }
      all.add(values);
    }
    return all;
  }

  /** SQLite gives moments back as its texts, MariaDB those with a zone in UTC without saying so. */
  private static Optional<String> inForm(Optional<String> cell, FieldType type) {
    boolean zoned = type instanceof FieldType.DateTime moment && moment.zoned();
    return cell.map(text -> text.replaceFirst("^(\\d{4}-\\d\\d-\\d\\d) (\\d\\d:\\d\\d)", "$1T$2"))
        .map(text -> zoned && text.matches(".*T[\\d:.]+") ? text + "Z" : text);
  }
}
