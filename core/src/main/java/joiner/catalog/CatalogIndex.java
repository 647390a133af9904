package joiner.catalog;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * An index that is there for speed only.
 *
 * @param descending those of the columns whose values stand from the greatest down
 */
public record CatalogIndex(String name, List<String> columns, Set<String> descending) {
  public CatalogIndex {
    columns = List.copyOf(columns);
    descending =
        columns.stream().filter(descending::contains).collect(Collectors.toUnmodifiableSet());
  }
}
