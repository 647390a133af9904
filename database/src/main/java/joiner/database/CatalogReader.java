package joiner.database;

import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.Exclusion;
import joiner.catalog.ForeignKey;
import joiner.catalog.Generated;
import joiner.catalog.Key;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.catalog.Surroundings;
import joiner.ddl.CheckClauses;
import joiner.engine.Dialect;
import joiner.model.ReferentialAction;
import org.jspecify.annotations.Nullable;

/**
 * Reads what a database holds in its current schema: through JDBC's metadata, and through the
 * queries of its engine where that does not say enough. Names are as the engine stores them.
 */
final class CatalogReader {
  /** From this length on, a type that an engine gives a length has none. */
  private static final int NO_LENGTH = 1_000_000;

  private final Connection connection;
  private final Dialect dialect;
  private final DatabaseMetaData metadata;
  private final @Nullable String catalog;
  private final @Nullable String schema;

  /** Names of indexes that are neither keys nor there for speed only. */
  private final Set<String> noKeys = new HashSet<>();

  CatalogReader(Connection connection, Dialect dialect) throws SQLException {
    this.connection = connection;
    this.dialect = dialect;
    this.metadata = connection.getMetaData();
    this.catalog = connection.getCatalog();
    this.schema = connection.getSchema();
  }

  /** The tables of the current schema. */
  Set<String> tableNames() throws SQLException {
    return tables().keySet();
  }

  /** The note on each table, empty where there is none, by its name. */
  private Map<String, String> tables() throws SQLException {
    Map<String, String> comments = new LinkedHashMap<>();
    try (ResultSet rows =
        metadata.getTables(catalog, schema, "%", new String[] {"TABLE", "BASE TABLE"})) {
      while (rows.next()) {
        comments.put(rows.getString("TABLE_NAME"), orEmpty(rows.getString("REMARKS")));
      }
    }
    return comments;
  }

  Catalog read() throws SQLException {
    var around = new AroundReader(connection, dialect);
    Map<String, Map<String, Generated>> generated = around.generated();
    Surroundings surroundings = around.around();
    surroundings.exclusions().stream().map(Exclusion::name).forEach(noKeys::add);
    var tables = new ArrayList<CatalogTable>();
    for (Map.Entry<String, String> table : tables().entrySet()) {
      String name = table.getKey();
      tables.add(table(name, table.getValue(), generated.getOrDefault(name, Map.of())));
    }
    return new Catalog(tables, List.of(), surroundings);
  }

  private CatalogTable table(String name, String comment, Map<String, Generated> generated)
      throws SQLException {
    Optional<Key> primary = primaryKey(name);
    var uniques = new ArrayList<Key>();
    var indexes = new ArrayList<CatalogIndex>();
    List<Column> columns = columns(name, generated);
    indexes(name, columns, uniques, indexes);
    // The index behind the primary key is no further key; one that says the same beside it is.
    uniques.stream()
        .filter(key -> primary.filter(p -> p.columns().equals(key.columns())).isPresent())
        .findFirst()
        .ifPresent(uniques::remove);
    return new CatalogTable(
        name, columns, primary, uniques, references(name), checks(name), indexes, comment);
  }

  private List<Column> columns(String table, Map<String, Generated> generated) throws SQLException {
    Map<String, String> types = types(table);
    var columns = new ArrayList<Column>();
    try (ResultSet rows = metadata.getColumns(catalog, schema, escaped(table), "%")) {
      while (rows.next()) {
        if (rows.getString("TABLE_NAME").equals(table)) {
          columns.add(column(rows, types, generated));
        }
      }
    }
    return columns;
  }

  private Column column(ResultSet row, Map<String, String> types, Map<String, Generated> generated)
      throws SQLException {
    String name = row.getString("COLUMN_NAME");
    String typeName = row.getString("TYPE_NAME");
    int size = row.getInt("COLUMN_SIZE");
    int digits = row.getInt("DECIMAL_DIGITS");
    boolean required = row.getInt("NULLABLE") == DatabaseMetaData.columnNoNulls;
    String comment = orEmpty(row.getString("REMARKS"));
    Optional<String> found = Optional.ofNullable(row.getString("COLUMN_DEF"));
    boolean taken = found.filter(dialect::isNext).isPresent();
    Optional<Generated> computed = Optional.ofNullable(generated.get(name));
    Optional<SqlExpression> given =
        taken || computed.isPresent() ? Optional.empty() : found.flatMap(dialect::foundDefault);
    boolean counts = taken || "YES".equals(row.getString("IS_AUTOINCREMENT"));
    SqlType type =
        types.containsKey(name)
            ? dialect.understand(types.get(name))
            : dialect.understand(typeName.toLowerCase(Locale.ROOT), numbers(size, digits));
    return new Column(name, type, required, given, counts, computed, comment);
  }

  /** Length, or precision and scale, as the metadata give them for every type. */
  private static List<Integer> numbers(int size, int digits) {
    return size <= 0 || size >= NO_LENGTH ? List.of() : List.of(size, digits);
  }

  /** The types of a table's columns as the engine spells them, where it is asked for them. */
  private Map<String, String> types(String table) throws SQLException {
    Map<String, String> types = new HashMap<>();
    if (dialect.queries().types().isPresent()) {
      for (List<String> row : rows(dialect.queries().types().get(), 2, table)) {
        types.put(row.get(0), row.get(1));
      }
    }
    return types;
  }

  private String escaped(String pattern) throws SQLException {
    String escape = metadata.getSearchStringEscape();
    return escape == null || escape.isEmpty()
        ? pattern
        : pattern.replace("_", escape + "_").replace("%", escape + "%");
  }

  private Optional<Key> primaryKey(String table) throws SQLException {
    Map<Integer, String> columns = new TreeMap<>();
    String name = "";
    if (dialect.queries().primaryKey().isPresent()) {
      for (List<String> row : rows(dialect.queries().primaryKey().get(), 1, table)) {
        columns.put(columns.size(), row.getFirst());
      }
    } else {
      try (ResultSet rows = metadata.getPrimaryKeys(catalog, schema, table)) {
        while (rows.next()) {
          columns.put(rows.getInt("KEY_SEQ"), rows.getString("COLUMN_NAME"));
          name = orEmpty(rows.getString("PK_NAME"));
        }
      }
    }
    return columns.isEmpty()
        ? Optional.empty()
        : Optional.of(new Key(name, List.copyOf(columns.values())));
  }

  private void indexes(
      String table, List<Column> known, List<Key> uniques, List<CatalogIndex> plain)
      throws SQLException {
    Map<String, String> names = asGiven(known);
    Map<String, List<String>> columns = new LinkedHashMap<>();
    Set<String> unique = new HashSet<>();
    Map<String, Set<String>> descending = new HashMap<>();
    for (IndexColumn part : indexColumns(table)) {
      if (noKeys.contains(part.index())) {
        continue;
      }
      columns
          .computeIfAbsent(part.index(), name -> new ArrayList<>())
          .add(names.getOrDefault(part.column(), part.column()));
      if (part.descending()) {
        descending
            .computeIfAbsent(part.index(), name -> new HashSet<>())
            .add(names.getOrDefault(part.column(), part.column()));
      }
      if (part.unique()) {
        unique.add(part.index());
      }
    }
    columns.forEach(
        (name, list) -> {
          if (unique.contains(name)) {
            uniques.add(new Key(dialect.givenName(name), list));
          } else {
            plain.add(new CatalogIndex(name, list, descending.getOrDefault(name, Set.of())));
          }
        });
  }

  private record IndexColumn(String index, boolean unique, String column, boolean descending) {}

  private List<IndexColumn> indexColumns(String table) throws SQLException {
    var parts = new ArrayList<IndexColumn>();
    if (dialect.queries().indexes().isPresent()) {
      for (List<String> row : rows(dialect.queries().indexes().get(), 3, table)) {
        parts.add(
            new IndexColumn(row.get(0), row.get(1).equalsIgnoreCase("true"), row.get(2), false));
      }
      return parts;
    }
    try (ResultSet rows = metadata.getIndexInfo(catalog, schema, table, false, false)) {
      while (rows.next()) {
        String index = rows.getString("INDEX_NAME");
        String column = rows.getString("COLUMN_NAME");
        if (index != null && column != null) {
          boolean down = "D".equals(rows.getString("ASC_OR_DESC"));
          parts.add(new IndexColumn(index, !rows.getBoolean("NON_UNIQUE"), column, down));
        }
      }
    }
    return parts;
  }

  /**
   * Names of columns by how drivers give them with an index: some give the name as it stands in
   * SQL, and take all quotation marks off both its ends.
   */
  private static Map<String, String> asGiven(List<Column> columns) {
    Map<String, String> names = new HashMap<>();
    for (Column column : columns) {
      String doubled = column.name().replace("\"", "\"\"");
      names.put(doubled.replaceAll("^\"+|\"+$", ""), column.name());
    }
    columns.forEach(column -> names.put(column.name(), column.name()));
    return names;
  }

  private List<ForeignKey> references(String table) throws SQLException {
    return dialect.queries().references().isPresent()
        ? askedReferences(dialect.queries().references().get(), table)
        : metadataReferences(table);
  }

  private List<ForeignKey> askedReferences(String query, String table) throws SQLException {
    Map<String, ForeignKey> references = new LinkedHashMap<>();
    for (List<String> row : rows(query, 6, table)) {
      var column =
          new ForeignKey(
              "",
              List.of(row.get(1)),
              row.get(2),
              List.of(row.get(3)),
              ReferentialAction.ofSql(row.get(4)),
              ReferentialAction.ofSql(row.get(5)),
              false);
      references.merge(row.get(0), column, CatalogReader::joined);
    }
    return List.copyOf(references.values());
  }

  /** The metadata give keys to one parent mixed, ordered by the place of their columns. */
  private List<ForeignKey> metadataReferences(String table) throws SQLException {
    Map<String, ForeignKey> references = new LinkedHashMap<>();
    try (ResultSet rows = metadata.getImportedKeys(catalog, schema, table)) {
      while (rows.next()) {
        String name = orEmpty(rows.getString("FK_NAME"));
        var column =
            new ForeignKey(
                name,
                List.of(rows.getString("FKCOLUMN_NAME")),
                rows.getString("PKTABLE_NAME"),
                List.of(rows.getString("PKCOLUMN_NAME")),
                action(rows.getInt("DELETE_RULE")),
                action(rows.getInt("UPDATE_RULE")),
                false);
        references.merge(name, column, CatalogReader::joined);
      }
    }
    return List.copyOf(references.values());
  }

  /** A key with the next of its columns. */
  private static ForeignKey joined(ForeignKey key, ForeignKey next) {
    var columns = new ArrayList<>(key.columns());
    columns.addAll(next.columns());
    var parentColumns = new ArrayList<>(key.parentColumns());
    parentColumns.addAll(next.parentColumns());
    return new ForeignKey(
        key.name(),
        columns,
        key.parent(),
        parentColumns,
        key.onDelete(),
        key.onUpdate(),
        key.late());
  }

  private static ReferentialAction action(int rule) {
    return switch (rule) {
      case DatabaseMetaData.importedKeyCascade -> ReferentialAction.CASCADE;
      case DatabaseMetaData.importedKeySetNull -> ReferentialAction.SET_NULL;
      case DatabaseMetaData.importedKeySetDefault -> ReferentialAction.SET_DEFAULT;
      case DatabaseMetaData.importedKeyRestrict -> ReferentialAction.RESTRICT;
      default -> ReferentialAction.NO_ACTION;
    };
  }

  private List<Check> checks(String table) throws SQLException {
    var checks = new ArrayList<Check>();
    if (dialect.queries().inStatement()) {
      for (List<String> row : rows(dialect.queries().checks(), 1, table)) {
        checks.addAll(CheckClauses.in(row.getFirst()));
      }
    } else {
      for (List<String> row : rows(dialect.queries().checks(), 2, table)) {
        checks.add(new Check(row.get(0), SqlExpression.found(row.get(1))));
      }
    }
    return checks;
  }

  /** What a query with one parameter gives. */
  private List<List<String>> rows(String sql, int columns, String parameter) throws SQLException {
    try (PreparedStatement statement = connection.prepareStatement(sql)) {
      statement.setString(1, parameter);
      return rows(statement, columns);
    }
  }

  static List<List<String>> rows(PreparedStatement query, int columns) throws SQLException {
    var found = new ArrayList<List<String>>();
    try (ResultSet rows = query.executeQuery()) {
      while (rows.next()) {
        var row = new ArrayList<String>();
        for (int column = 1; column <= columns; column++) {
          row.add(orEmpty(rows.getString(column)));
        }
        found.add(row);
      }
    }
    return found;
  }

  private static String orEmpty(@Nullable String text) {
    return text == null ? "" : text;
  }
}
