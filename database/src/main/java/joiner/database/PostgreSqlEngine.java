package joiner.database;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Set;
import joiner.ddl.Catalog;
import joiner.ddl.Dialect;
import joiner.ddl.Dialects;

/** PostgreSQL. */
final class PostgreSqlEngine extends Engine {
  @Override
  Dialect dialect() {
    return Dialects.POSTGRESQL;
  }

  @Override
  boolean undoesDefinitions() {
    return true;
  }

  @Override
  Catalog read(Connection connection) throws SQLException {
    return new MetadataReader(connection, connection.getCatalog(), connection.getSchema()) {
      @Override
      String type(ResultSet column) throws SQLException {
        return PostgreSqlEngine.type(column);
      }

      @Override
      Set<String> checks(String table) throws SQLException {
        return names(
            "SELECT c.conname FROM pg_constraint c JOIN pg_class t ON t.oid = c.conrelid"
                + " JOIN pg_namespace n ON n.oid = t.relnamespace"
                + " WHERE c.contype = 'c' AND n.nspname = current_schema() AND t.relname = ?",
            table);
      }
    }.read();
  }

  private static String type(ResultSet column) throws SQLException {
    String name = column.getString("TYPE_NAME");
    int size = column.getInt("COLUMN_SIZE");
    return switch (name) {
      case "varchar" -> size == Integer.MAX_VALUE ? "varchar" : "varchar(" + size + ")";
      case "numeric" ->
          size == 0 ? "numeric" : "numeric(" + size + ", " + column.getInt("DECIMAL_DIGITS") + ")";
      case "int2", "smallserial" -> "smallint";
      case "int4", "serial" -> "integer";
      case "int8", "bigserial" -> "bigint";
      case "bool" -> "boolean";
      case "timestamptz" -> "timestamp with time zone";
      default -> name;
    };
  }
}
