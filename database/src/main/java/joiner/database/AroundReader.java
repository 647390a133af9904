package joiner.database;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.catalog.CatalogTable;
import joiner.catalog.Column;
import joiner.catalog.Exclusion;
import joiner.catalog.Generated;
import joiner.catalog.Grant;
import joiner.catalog.Surroundings;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.ddl.SqlScript;
import joiner.engine.AroundQueries;
import joiner.engine.Dialect;

/** Reads what stands around the tables of the current schema, and which columns are computed. */
final class AroundReader {
  private final Connection connection;
  private final Dialect dialect;
  private final AroundQueries queries;

  AroundReader(Connection connection, Dialect dialect) {
    this.connection = connection;
    this.dialect = dialect;
    this.queries = dialect.around();
  }

  Surroundings around() throws SQLException {
    var views = new ArrayList<View>();
    for (List<String> row : rows(queries.views(), 3)) {
      views.add(new View(row.get(0), isTrue(row.get(1)), row.get(2)));
    }
    Map<List<String>, Trigger> triggers = new LinkedHashMap<>();
    for (List<String> row : rows(queries.triggers(), 5)) {
      var trigger =
          new Trigger(
              row.get(0),
              row.get(1),
              Trigger.Timing.of(row.get(2)),
              Trigger.Event.in(row.get(3)),
              row.get(4));
      triggers.put(List.of(row.get(1), row.get(0)), trigger);
    }
    var grants = new ArrayList<Grant>();
    for (List<String> row : rows(queries.grants(), 4)) {
      grants.add(new Grant(row.get(0), row.get(1), row.get(2), isTrue(row.get(3))));
    }
    return new Surroundings(views, List.copyOf(triggers.values()), exclusions(), grants);
  }

  /** What rows exclude each other by beside keys. */
  List<Exclusion> exclusions() throws SQLException {
    var exclusions = new ArrayList<Exclusion>();
    for (List<String> row : rows(queries.exclusions(), 4)) {
      exclusions.add(
          new Exclusion(row.get(0), row.get(1), isTrue(row.get(2)), Optional.empty(), row.get(3)));
    }
    return exclusions;
  }

  /** Computed columns: table → column → how. */
  Map<String, Map<String, Generated>> generated() throws SQLException {
    Map<String, Map<String, Generated>> generated = new HashMap<>();
    if (!queries.generatedInStatement()) {
      for (List<String> row : rows(queries.generated(), 4)) {
        put(generated, row.get(0), row.get(1), new Generated(row.get(2), isTrue(row.get(3))));
      }
      return generated;
    }
    for (List<String> row : rows(queries.generated(), 1)) {
      SqlScript made = SqlScript.of(row.getFirst(), Optional.of(dialect));
      for (CatalogTable table : made.catalog().tables()) {
        for (Column column : table.columns()) {
          column.generated().ifPresent(how -> put(generated, table.name(), column.name(), how));
        }
      }
    }
    return generated;
  }

  private static void put(
      Map<String, Map<String, Generated>> all, String table, String column, Generated how) {
    all.computeIfAbsent(table, name -> new HashMap<>()).put(column, how);
  }

  private static boolean isTrue(String word) {
    return List.of("true", "t", "yes", "1").contains(word.toLowerCase(Locale.ROOT));
  }

  private List<List<String>> rows(Optional<String> sql, int columns) throws SQLException {
    if (sql.isEmpty()) {
      return List.of();
    }
    try (PreparedStatement query = connection.prepareStatement(sql.get())) {
      return CatalogReader.rows(query, columns);
    }
  }
}
