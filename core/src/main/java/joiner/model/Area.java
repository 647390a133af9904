package joiner.model;

import java.util.List;

/**
 * A named group of tables.
 *
 * @param id stays the same for its whole life
 * @param name unique within the design
 * @param hue which of the six muted hues marks it, 0 to 5
 */
public record Area(AreaId id, String name, int hue) {
  /** How many hues there are. */
  public static final int HUES = 6;

  public Area {
    if (hue < 0 || hue >= HUES) {
      throw new IllegalArgumentException("area hue is 0 to 5, not " + hue);
    }
  }

  /** A new one; its id is its name. */
  public Area(String name, int hue) {
    this(new AreaId(name), name, hue);
  }

  /** The one of that name, or a new one beside the others with an id and a mark of its own. */
  public static Area named(List<Area> areas, String name) {
    return areas.stream()
        .filter(area -> area.name().equals(name))
        .findFirst()
        .orElseGet(() -> beside(areas, name));
  }

  private static Area beside(List<Area> others, String name) {
    List<String> taken = others.stream().map(area -> area.id().value()).toList();
    return new Area(new AreaId(Taken.free(name, taken)), name, others.size() % HUES);
  }

  /** The same under another name. */
  public Area withName(String other) {
    return new Area(id, other, hue);
  }

  /** The same with another mark. */
  public Area withHue(int other) {
    return new Area(id, name, other);
  }
}
