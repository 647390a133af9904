package joiner.catalog;

import java.util.List;
import java.util.Optional;

/**
 * A schema.
 *
 * @param tables in the order in which they can be made; a foreign key to a later one is {@link
 *     ForeignKey#late}
 * @param sequences that columns count up by
 * @param others what is there besides, named only
 */
public record Catalog(
    List<CatalogTable> tables, List<Sequence> sequences, List<OtherObject> others) {
  public Catalog {
    tables = List.copyOf(tables);
    sequences = List.copyOf(sequences);
    others = List.copyOf(others);
  }

  /** Nothing besides. */
  public Catalog(List<CatalogTable> tables, List<Sequence> sequences) {
    this(tables, sequences, List.of());
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
