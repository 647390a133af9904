package joiner.map;

/**
 * The ends of relationships: a single tab for one, a comb of three fingers for many; filled means
 * required.
 */
public final class Joints {
  private Joints() {}

  /**
   * Draws an end.
   *
   * @param x the border of what it is at
   * @param direction 1 if that lies to the right, -1 if to the left
   */
  public static void draw(
      Pen pen, double x, double y, double direction, boolean single, boolean filled) {
    double left = direction > 0 ? x : x - 10;
    Ink inside = filled ? Ink.TEXT : Ink.BOARD;
    if (single) {
      piece(pen, inside, direction > 0 ? left + 3 : left, y - 5, 7, 10);
      return;
    }
    for (int finger = -1; finger <= 1; finger++) {
      piece(pen, inside, left, y - 2 + finger * 6, 10, 4);
    }
  }

  private static void piece(Pen pen, Ink inside, double x, double y, double width, double height) {
    pen.fill(inside, x, y, width, height);
    pen.frame(Ink.TEXT, 1, x, y, width, height);
  }
}
