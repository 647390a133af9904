package joiner.model;

import java.util.LinkedHashMap;
import java.util.Map;

/**
 * What a file said that Joiner does not model: kept word for word and written back.
 *
 * @param byProperty property name → its value as JSON text, in the order read
 */
public record Extras(Map<String, String> byProperty) {
  /** Nothing extra. */
  public static final Extras NONE = new Extras(Map.of());

  public Extras {
    byProperty = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(byProperty));
  }

  /** Whether there is nothing. */
  public boolean isEmpty() {
    return byProperty.isEmpty();
  }
}
