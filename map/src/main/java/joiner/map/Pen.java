package joiner.map;

/** A surface that a map is drawn on, in pixels of the map. */
public interface Pen {
  /** How much of a colour there is in a tint of it. */
  double TINT = 0.1;

  /** Fills a rectangle. */
  void fill(Ink ink, double x, double y, double width, double height);

  /** Fills a rectangle of the paper with a tint. */
  void tint(Ink ink, double x, double y, double width, double height);

  /** Draws the border of a rectangle. */
  void frame(Ink ink, double thick, double x, double y, double width, double height);

  /** Draws a line through places, x and y in turn. */
  void line(Ink ink, double thick, double... points);

  /**
   * Writes a text from the left.
   *
   * @param middle where the middle of its letters is
   */
  void text(Ink ink, boolean bold, double size, double x, double middle, String text);

  /** How wide a text would be. */
  double width(boolean bold, double size, String text);
}
