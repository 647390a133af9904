package joiner.catalog;

import java.util.List;
import java.util.Optional;

/**
 * A table with everything that belongs to it.
 *
 * @param comment a note for people, empty where there is none
 */
public record CatalogTable(
    String name,
    List<Column> columns,
    Optional<Key> primaryKey,
    List<Key> uniqueKeys,
    List<ForeignKey> foreignKeys,
    List<Check> checks,
    List<CatalogIndex> indexes,
    String comment) {
  public CatalogTable {
    columns = List.copyOf(columns);
    uniqueKeys = List.copyOf(uniqueKeys);
    foreignKeys = List.copyOf(foreignKeys);
    checks = List.copyOf(checks);
    indexes = List.copyOf(indexes);
  }

  /** The same table with other checks. */
  public CatalogTable withChecks(List<Check> other) {
    return new CatalogTable(
        name, columns, primaryKey, uniqueKeys, foreignKeys, other, indexes, comment);
  }

  /** The column of that name. */
  public Optional<Column> column(String wanted) {
    return columns.stream().filter(column -> column.name().equals(wanted)).findFirst();
  }
}
