package joiner.database;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.ddl.Catalog;
import joiner.ddl.Dialect;
import joiner.ddl.Dialects;

/** SQLite. What its catalog does not say is read from the text of the statement it keeps. */
final class SqliteEngine extends Engine {
  private static final Pattern CHECK =
      Pattern.compile("CONSTRAINT (\"(?:[^\"]|\"\")+\"|\\w+) CHECK");

  @Override
  Dialect dialect() {
    return Dialects.SQLITE;
  }

  @Override
  boolean undoesDefinitions() {
    return true;
  }

  @Override
  Properties properties(Target target) {
    Properties properties = super.properties(target);
    properties.put("foreign_keys", "true");
    return properties;
  }

  @Override
  void begin(Connection connection) throws SQLException {
    run(connection, "PRAGMA defer_foreign_keys = ON");
  }

  @Override
  Catalog read(Connection connection) throws SQLException {
    Map<String, String> statements = statements(connection);
    Map<String, Map<String, String>> types = new HashMap<>();
    for (String table : statements.keySet()) {
      types.put(table, types(connection, table));
    }
    return new MetadataReader(connection, null, null) {
      @Override
      String type(ResultSet column) throws SQLException {
        return types.get(column.getString("TABLE_NAME")).get(column.getString("COLUMN_NAME"));
      }

      @Override
      Set<String> checks(String table) {
        Set<String> names = new HashSet<>();
        Matcher found = CHECK.matcher(statements.get(table));
        while (found.find()) {
          String name = found.group(1);
          names.add(
              name.startsWith("\"")
                  ? name.substring(1, name.length() - 1).replace("\"\"", "\"")
                  : name);
        }
        return names;
      }
    }.read();
  }

  private static Map<String, String> statements(Connection connection) throws SQLException {
    Map<String, String> statements = new HashMap<>();
    try (var statement = connection.createStatement();
        ResultSet rows =
            statement.executeQuery(
                "SELECT name, sql FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'")) {
      while (rows.next()) {
        statements.put(rows.getString(1), rows.getString(2));
      }
    }
    return statements;
  }

  private static Map<String, String> types(Connection connection, String table)
      throws SQLException {
    Map<String, String> types = new HashMap<>();
    try (var statement =
        connection.prepareStatement("SELECT name, type FROM pragma_table_info(?)")) {
      statement.setString(1, table);
      try (ResultSet rows = statement.executeQuery()) {
        while (rows.next()) {
          types.put(rows.getString(1), rows.getString(2));
        }
      }
    }
    return types;
  }
}
