package joiner.ddl;

import java.util.List;
import joiner.engine.Dialect;
import joiner.engine.Upkeep.Looked;
import joiner.model.FieldId;
import joiner.model.Table;

/** Columns of rows as triggers of an engine speak of them. */
record RowText(Dialect dialect) {
  /** A column by itself. */
  String name(Table of, FieldId field) {
    return dialect.name(of.field(field).name());
  }

  /** A column of rows that are called so. */
  String column(String alias, Table of, FieldId field) {
    return alias + "." + name(of, field);
  }

  /** Columns of rows that are called so. */
  List<String> columns(String alias, Table of, List<FieldId> fields) {
    return fields.stream().map(field -> column(alias, of, field)).toList();
  }

  /** Columns of the row that was changed. */
  List<String> changed(Table of, List<FieldId> fields) {
    return columns(Looked.ROW, of, fields);
  }
}
