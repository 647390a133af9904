package joiner.database;

import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import joiner.ddl.Catalog;
import org.jspecify.annotations.Nullable;

/** Reads a catalog through JDBC's metadata; what JDBC does not say is left to the engine. */
abstract class MetadataReader {
  private final Connection connection;
  private final DatabaseMetaData metadata;
  private final @Nullable String catalog;
  private final @Nullable String schema;

  MetadataReader(Connection connection, @Nullable String catalog, @Nullable String schema)
      throws SQLException {
    this.connection = connection;
    this.metadata = connection.getMetaData();
    this.catalog = catalog;
    this.schema = schema;
  }

  /** The type of a column, from a row of {@code getColumns}, in the dialect's spelling. */
  abstract String type(ResultSet column) throws SQLException;

  /** Names of the table's check constraints. */
  abstract Set<String> checks(String table) throws SQLException;

  final Catalog read() throws SQLException {
    Map<String, String> descriptions = new LinkedHashMap<>();
    try (ResultSet rows =
        metadata.getTables(catalog, schema, "%", new String[] {"TABLE", "BASE TABLE"})) {
      while (rows.next()) {
        descriptions.put(rows.getString("TABLE_NAME"), orEmpty(rows.getString("REMARKS")));
      }
    }
    Map<String, Catalog.CatalogTable> tables = new LinkedHashMap<>();
    for (Map.Entry<String, String> table : descriptions.entrySet()) {
      tables.put(table.getKey(), table(table.getKey(), table.getValue()));
    }
    return new Catalog(tables);
  }

  private Catalog.CatalogTable table(String name, String description) throws SQLException {
    List<String> primary = primaryKey(name);
    Set<List<String>> unique = new HashSet<>();
    Set<List<String>> plain = new HashSet<>();
    indexes(name, unique, plain);
    unique.remove(primary);
    return new Catalog.CatalogTable(
        columns(name), primary, unique, references(name), checks(name), plain, description);
  }

  private Map<String, Catalog.Column> columns(String table) throws SQLException {
    Map<String, Catalog.Column> columns = new LinkedHashMap<>();
    try (ResultSet rows = metadata.getColumns(catalog, schema, escaped(table), "%")) {
      while (rows.next()) {
        if (!rows.getString("TABLE_NAME").equals(table)) {
          continue;
        }
        String defaultText = rows.getString("COLUMN_DEF");
        String description = orEmpty(rows.getString("REMARKS"));
        boolean generated = "YES".equals(rows.getString("IS_AUTOINCREMENT"));
        boolean required = rows.getInt("NULLABLE") == DatabaseMetaData.columnNoNulls;
        columns.put(
            rows.getString("COLUMN_NAME"),
            new Catalog.Column(
                type(rows), required, Optional.ofNullable(defaultText), generated, description));
      }
    }
    return columns;
  }

  private String escaped(String pattern) throws SQLException {
    String escape = metadata.getSearchStringEscape();
    return escape == null || escape.isEmpty()
        ? pattern
        : pattern.replace("_", escape + "_").replace("%", escape + "%");
  }

  private List<String> primaryKey(String table) throws SQLException {
    Map<Integer, String> columns = new TreeMap<>();
    try (ResultSet rows = metadata.getPrimaryKeys(catalog, schema, table)) {
      while (rows.next()) {
        columns.put(rows.getInt("KEY_SEQ"), rows.getString("COLUMN_NAME"));
      }
    }
    return List.copyOf(columns.values());
  }

  private void indexes(String table, Set<List<String>> unique, Set<List<String>> plain)
      throws SQLException {
    Map<String, List<String>> columns = new LinkedHashMap<>();
    Set<String> repeating = new HashSet<>();
    try (ResultSet rows = metadata.getIndexInfo(catalog, schema, table, false, false)) {
      while (rows.next()) {
        String index = rows.getString("INDEX_NAME");
        String column = rows.getString("COLUMN_NAME");
        if (index != null && column != null) {
          columns.computeIfAbsent(index, name -> new ArrayList<>()).add(column);
          if (rows.getBoolean("NON_UNIQUE")) {
            repeating.add(index);
          }
        }
      }
    }
    columns.forEach(
        (name, list) -> (repeating.contains(name) ? plain : unique).add(List.copyOf(list)));
  }

  private Set<Catalog.Reference> references(String table) throws SQLException {
    Set<Catalog.Reference> references = new HashSet<>();
    List<String> from = new ArrayList<>();
    List<String> to = new ArrayList<>();
    try (ResultSet rows = metadata.getImportedKeys(catalog, schema, table)) {
      String parent = "";
      String onDelete = "";
      String onUpdate = "";
      while (rows.next()) {
        if (rows.getInt("KEY_SEQ") == 1 && !from.isEmpty()) {
          references.add(new Catalog.Reference(from, parent, to, onDelete, onUpdate));
          from.clear();
          to.clear();
        }
        from.add(rows.getString("FKCOLUMN_NAME"));
        to.add(rows.getString("PKCOLUMN_NAME"));
        parent = rows.getString("PKTABLE_NAME");
        onDelete = action(rows.getInt("DELETE_RULE"));
        onUpdate = action(rows.getInt("UPDATE_RULE"));
      }
      if (!from.isEmpty()) {
        references.add(new Catalog.Reference(from, parent, to, onDelete, onUpdate));
      }
    }
    return references;
  }

  private static String action(int rule) {
    return switch (rule) {
      case DatabaseMetaData.importedKeyCascade -> "CASCADE";
      case DatabaseMetaData.importedKeySetNull -> "SET NULL";
      case DatabaseMetaData.importedKeySetDefault -> "SET DEFAULT";
      case DatabaseMetaData.importedKeyRestrict -> "RESTRICT";
      default -> "NO ACTION";
    };
  }

  /** The first column of a query with one parameter. */
  final Set<String> names(String sql, String parameter) throws SQLException {
    Set<String> names = new HashSet<>();
    try (PreparedStatement statement = connection.prepareStatement(sql)) {
      statement.setString(1, parameter);
      try (ResultSet rows = statement.executeQuery()) {
        while (rows.next()) {
          names.add(rows.getString(1));
        }
      }
    }
    return names;
  }

  private static String orEmpty(@Nullable String text) {
    return text == null ? "" : text;
  }
}
