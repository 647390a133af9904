package joiner.ddl;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.catalog.Column;
import joiner.catalog.SameParts;
import joiner.naming.IdentifierRules;

/**
 * Gives the names of a schema as one writes them without quotation marks, where the engine keeps
 * them in capitals. Two that would become one stay as they are.
 */
final class WrittenNames {
  private WrittenNames() {}

  static Catalog in(Catalog catalog, IdentifierRules rules) {
    Map<String, Map<String, String>> columns = new HashMap<>();
    for (CatalogTable table : catalog.tables()) {
      List<String> names = table.columns().stream().map(Column::name).toList();
      columns.put(table.name(), written(names, rules));
    }
    List<String> names = catalog.tables().stream().map(CatalogTable::name).toList();
    var same = new SameParts(written(names, rules), columns);
    return new Catalog(
        catalog.tables().stream().map(table -> same.renamed(table, rules::written)).toList());
  }

  private static Map<String, String> written(List<String> stored, IdentifierRules rules) {
    var there = new HashSet<>(stored);
    Map<String, String> written = new HashMap<>();
    for (String name : stored) {
      String as = rules.written(name);
      written.put(name, there.contains(as) ? name : as);
    }
    return written;
  }
}
