package joiner.catalog;

import java.util.List;

/** A primary or unique key; a found one may have no name. */
public record Key(String name, List<String> columns) {
  public Key {
    columns = List.copyOf(columns);
  }
}
