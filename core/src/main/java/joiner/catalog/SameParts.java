package joiner.catalog;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * Which tables and columns of two schemas are the same ones, under whatever names.
 *
 * @param tables name before → name after
 * @param columns name of the table before → name of the column before → name after
 */
public record SameParts(Map<String, String> tables, Map<String, Map<String, String>> columns) {
  public SameParts {
    tables = Map.copyOf(tables);
    columns = Map.copyOf(columns);
  }

  /** What becomes of the columns of a table, by their names before. */
  Map<String, String> columnsOf(String table) {
    return columns.getOrDefault(table, Map.of());
  }

  /** A table of before under the names of after; what goes keeps its name. */
  CatalogTable renamed(CatalogTable table) {
    return renamed(table, UnaryOperator.identity());
  }

  /**
   * The same with other names of its constraints and indexes too.
   *
   * @param constraint name before → name after
   */
  public CatalogTable renamed(CatalogTable table, UnaryOperator<String> constraint) {
    Map<String, String> own = columnsOf(table.name());
    UnaryOperator<String> column = name -> own.getOrDefault(name, name);
    return new CatalogTable(
        tables.getOrDefault(table.name(), table.name()),
        table.columns().stream().map(c -> c.named(column.apply(c.name()))).toList(),
        table.primaryKey().map(key -> renamed(key, column, constraint)),
        table.uniqueKeys().stream().map(key -> renamed(key, column, constraint)).toList(),
        table.foreignKeys().stream().map(key -> renamed(key, column, constraint)).toList(),
        table.checks().stream()
            .map(check -> new Check(constraint.apply(check.name()), check.condition()))
            .toList(),
        table.indexes().stream().map(i -> renamed(i, column, constraint)).toList(),
        table.comment());
  }

  private static CatalogIndex renamed(
      CatalogIndex index, UnaryOperator<String> column, UnaryOperator<String> constraint) {
    return new CatalogIndex(
        constraint.apply(index.name()),
        all(index.columns(), column),
        Set.copyOf(all(List.copyOf(index.descending()), column)));
  }

  private ForeignKey renamed(
      ForeignKey key, UnaryOperator<String> column, UnaryOperator<String> constraint) {
    Map<String, String> parents = columnsOf(key.parent());
    return new ForeignKey(
        constraint.apply(key.name()),
        all(key.columns(), column),
        tables.getOrDefault(key.parent(), key.parent()),
        all(key.parentColumns(), name -> parents.getOrDefault(name, name)),
        key.onDelete(),
        key.onUpdate(),
        key.late());
  }

  private static Key renamed(
      Key key, UnaryOperator<String> column, UnaryOperator<String> constraint) {
    return new Key(constraint.apply(key.name()), all(key.columns(), column));
  }

  private static List<String> all(List<String> names, UnaryOperator<String> as) {
    return names.stream().map(as).toList();
  }
}
