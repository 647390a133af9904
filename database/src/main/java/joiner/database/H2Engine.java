package joiner.database;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Locale;
import java.util.Set;
import joiner.ddl.Catalog;
import joiner.ddl.Dialect;
import joiner.ddl.Dialects;

/** H2. Each definition is committed at once, so a failed shipment is taken back table by table. */
final class H2Engine extends Engine {
  @Override
  Dialect dialect() {
    return Dialects.H2;
  }

  @Override
  boolean undoesDefinitions() {
    return false;
  }

  @Override
  Catalog read(Connection connection) throws SQLException {
    return new MetadataReader(connection, connection.getCatalog(), connection.getSchema()) {
      @Override
      String type(ResultSet column) throws SQLException {
        return H2Engine.type(column);
      }

      @Override
      Set<String> checks(String table) throws SQLException {
        return names(
            "SELECT CONSTRAINT_NAME FROM INFORMATION_SCHEMA.TABLE_CONSTRAINTS WHERE CONSTRAINT_TYPE = 'CHECK'"
                + " AND TABLE_SCHEMA = CURRENT_SCHEMA AND TABLE_NAME = ?",
            table);
      }
    }.read();
  }

  private static String type(ResultSet column) throws SQLException {
    String name = column.getString("TYPE_NAME").toLowerCase(Locale.ROOT);
    int size = column.getInt("COLUMN_SIZE");
    return switch (name) {
      case "character varying" -> size >= 1_000_000 ? "varchar" : "varchar(" + size + ")";
      case "numeric" -> "numeric(" + size + ", " + column.getInt("DECIMAL_DIGITS") + ")";
      default -> name;
    };
  }
}
