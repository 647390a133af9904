package joiner.ddl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.ForeignKey;
import joiner.catalog.Generated;
import joiner.catalog.Key;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;

/** A table of a script while its statements are read. */
final class TableDraft {
  /** A column as far as it is known. */
  static final class ColumnDraft {
    SqlType type;
    boolean required;
    boolean counts;
    Optional<SqlExpression> defaultValue = Optional.empty();
    Optional<Generated> generated = Optional.empty();
    String comment = "";

    ColumnDraft(SqlType type) {
      this.type = type;
    }
  }

  final String name;
  final Map<String, ColumnDraft> columns = new LinkedHashMap<>();
  Optional<Key> primaryKey = Optional.empty();
  final List<Key> uniqueKeys = new ArrayList<>();
  final List<ForeignKey> foreignKeys = new ArrayList<>();
  final List<Check> checks = new ArrayList<>();
  final List<CatalogIndex> indexes = new ArrayList<>();
  String comment = "";

  TableDraft(String name) {
    this.name = name;
  }

  CatalogTable table() {
    List<Column> all = new ArrayList<>();
    columns.forEach(
        (column, draft) ->
            all.add(
                new Column(
                    column,
                    draft.type,
                    draft.required || isKey(column),
                    draft.defaultValue,
                    draft.counts,
                    draft.generated,
                    draft.comment)));
    return new CatalogTable(
        name, all, primaryKey, uniqueKeys, foreignKeys, checks, indexes, comment);
  }

  private boolean isKey(String column) {
    return primaryKey.filter(key -> key.columns().contains(column)).isPresent();
  }
}
