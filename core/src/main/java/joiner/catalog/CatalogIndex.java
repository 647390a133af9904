package joiner.catalog;

import java.util.List;

/** An index that is there for speed only. */
public record CatalogIndex(String name, List<String> columns) {
  public CatalogIndex {
    columns = List.copyOf(columns);
  }
}
