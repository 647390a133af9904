package joiner.ddl;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.naming.IdentifierRules;

/**
 * Gives the names of a schema as one writes them without quotation marks, where the engine keeps
 * them in capitals. Two that would become one stay as they are.
 */
final class WrittenNames {
  private final IdentifierRules rules;
  private final Map<String, String> tables;
  private final Map<String, Map<String, String>> columns = new HashMap<>();

  private WrittenNames(Catalog catalog, IdentifierRules rules) {
    this.rules = rules;
    this.tables = written(catalog.tables().stream().map(CatalogTable::name).toList());
    for (CatalogTable table : catalog.tables()) {
      columns.put(table.name(), written(table.columns().stream().map(Column::name).toList()));
    }
  }

  static Catalog in(Catalog catalog, IdentifierRules rules) {
    var names = new WrittenNames(catalog, rules);
    return new Catalog(catalog.tables().stream().map(names::of).toList());
  }

  private Map<String, String> written(Collection<String> stored) {
    var there = new HashSet<>(stored);
    Map<String, String> written = new HashMap<>();
    for (String name : stored) {
      String as = rules.written(name);
      written.put(name, there.contains(as) ? name : as);
    }
    return written;
  }

  private String table(String name) {
    return tables.getOrDefault(name, name);
  }

  private String column(String table, String name) {
    return columns.getOrDefault(table, Map.of()).getOrDefault(name, name);
  }

  private List<String> columns(String table, List<String> names) {
    return names.stream().map(name -> column(table, name)).toList();
  }

  private CatalogTable of(CatalogTable table) {
    String name = table.name();
    Optional<Key> primary = table.primaryKey().map(key -> of(name, key));
    return new CatalogTable(
        table(name),
        table.columns().stream().map(column -> of(name, column)).toList(),
        primary,
        table.uniqueKeys().stream().map(key -> of(name, key)).toList(),
        table.foreignKeys().stream().map(key -> of(name, key)).toList(),
        table.checks().stream()
            .map(check -> new Check(rules.written(check.name()), check.condition()))
            .toList(),
        table.indexes().stream()
            .map(i -> new CatalogIndex(rules.written(i.name()), columns(name, i.columns())))
            .toList(),
        table.comment());
  }

  private Column of(String table, Column column) {
    return new Column(
        column(table, column.name()),
        column.type(),
        column.required(),
        column.defaultValue(),
        column.counts(),
        column.generated(),
        column.comment());
  }

  private Key of(String table, Key key) {
    return new Key(rules.written(key.name()), columns(table, key.columns()));
  }

  private ForeignKey of(String table, ForeignKey key) {
    return new ForeignKey(
        rules.written(key.name()),
        columns(table, key.columns()),
        table(key.parent()),
        columns(key.parent(), key.parentColumns()),
        key.onDelete(),
        key.onUpdate(),
        key.late());
  }
}
