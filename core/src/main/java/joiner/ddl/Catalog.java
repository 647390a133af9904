package joiner.ddl;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * What a database holds, or is promised to hold, in words that do not depend on the engine. Names
 * are as the engine stores them.
 *
 * @param tables by name
 */
public record Catalog(Map<String, CatalogTable> tables) {
  public Catalog {
    tables = java.util.Collections.unmodifiableMap(new TreeMap<>(tables));
  }

  /** One table. */
  public record CatalogTable(
      Map<String, Column> columns,
      List<String> primaryKey,
      Set<List<String>> uniqueKeys,
      Set<Reference> references,
      Set<String> checks,
      Set<List<String>> indexes,
      String description) {
    public CatalogTable {
      columns = java.util.Collections.unmodifiableMap(new TreeMap<>(columns));
      primaryKey = List.copyOf(primaryKey);
      uniqueKeys = Set.copyOf(uniqueKeys);
      references = Set.copyOf(references);
      checks = Set.copyOf(checks);
      indexes = Set.copyOf(indexes);
    }
  }

  /**
   * One column.
   *
   * @param type in the dialect's own spelling
   * @param required NOT NULL
   * @param defaultText the default as the engine says it
   * @param generated whether the engine counts it up
   */
  public record Column(
      String type,
      boolean required,
      Optional<String> defaultText,
      boolean generated,
      String description) {}

  /** One foreign key, with the words of the standard for its actions. */
  public record Reference(
      List<String> columns,
      String parent,
      List<String> parentColumns,
      String onDelete,
      String onUpdate) {
    public Reference {
      columns = List.copyOf(columns);
      parentColumns = List.copyOf(parentColumns);
    }
  }
}
