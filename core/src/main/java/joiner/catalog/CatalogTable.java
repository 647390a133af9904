package joiner.catalog;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

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

  /** The same table with its foreign keys declared with it or later. */
  public CatalogTable withReferences(boolean later) {
    List<ForeignKey> declared = foreignKeys.stream().map(key -> key.declared(later)).toList();
    return new CatalogTable(
        name, columns, primaryKey, uniqueKeys, declared, checks, indexes, comment);
  }

  /** The same table with another name of its primary key. */
  public CatalogTable withPrimaryKeyNamed(UnaryOperator<String> name) {
    Optional<Key> key = primaryKey.map(k -> new Key(name.apply(k.name()), k.columns()));
    return new CatalogTable(
        this.name, columns, key, uniqueKeys, foreignKeys, checks, indexes, comment);
  }

  /** The column of that name. */
  public Optional<Column> column(String wanted) {
    return columns.stream().filter(column -> column.name().equals(wanted)).findFirst();
  }
}
