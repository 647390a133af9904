package joiner.model;

/**
 * A named group of tables.
 *
 * @param name unique within the design
 * @param hue which of the six muted hues marks it, 0 to 5
 */
public record Area(String name, int hue) {
  /** How many hues there are. */
  public static final int HUES = 6;

  public Area {
    if (hue < 0 || hue >= HUES) {
      throw new IllegalArgumentException("area hue is 0 to 5, not " + hue);
    }
  }
}
