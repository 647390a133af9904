package joiner.catalog;

import java.util.List;
import java.util.Optional;

/**
 * A schema.
 *
 * @param tables in the order in which they can be made; a foreign key to a later one is {@link
 *     ForeignKey#late}
 */
public record Catalog(List<CatalogTable> tables) {
  public Catalog {
    tables = List.copyOf(tables);
  }

  /** The table of that name. Linear in tables. */
  public Optional<CatalogTable> find(String name) {
    return tables.stream().filter(table -> table.name().equals(name)).findFirst();
  }
}
