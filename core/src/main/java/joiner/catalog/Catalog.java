package joiner.catalog;

import java.util.List;
import java.util.Optional;

/**
 * A schema.
 *
 * @param tables in the order in which they can be made; a foreign key to a later one is {@link
 *     ForeignKey#late}
 * @param sequences that columns count up by
 * @param around what stands around the tables
 */
public record Catalog(List<CatalogTable> tables, List<Sequence> sequences, Surroundings around) {
  public Catalog {
    tables = List.copyOf(tables);
    sequences = List.copyOf(sequences);
  }

  /** Tables alone. */
  public Catalog(List<CatalogTable> tables, List<Sequence> sequences) {
    this(tables, sequences, Surroundings.NONE);
  }

  /** Tables whose counters count by themselves. */
  public Catalog(List<CatalogTable> tables) {
    this(tables, List.of());
  }

  /** The table of that name. Linear in tables. */
  public Optional<CatalogTable> find(String name) {
    return tables.stream().filter(table -> table.name().equals(name)).findFirst();
  }
}
