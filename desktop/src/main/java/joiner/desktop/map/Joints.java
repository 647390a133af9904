package joiner.desktop.map;

import javafx.scene.canvas.GraphicsContext;

/**
 * The ends of relationships: a single tab for one, a comb of three fingers for many; filled means
 * required.
 */
final class Joints {
  private Joints() {}

  /**
   * Draws an end.
   *
   * @param x the border of what it is at
   * @param direction 1 if that lies to the right, -1 if to the left
   */
  static void draw(
      GraphicsContext g,
      MapColors colors,
      double x,
      double y,
      double direction,
      boolean single,
      boolean filled) {
    double left = direction > 0 ? x : x - 10;
    g.setLineWidth(1);
    g.setStroke(colors.ink());
    g.setFill(filled ? colors.ink() : colors.board());
    if (single) {
      piece(g, direction > 0 ? left + 3 : left, y - 5, 7, 10);
      return;
    }
    for (int finger = -1; finger <= 1; finger++) {
      piece(g, left, y - 2 + finger * 6, 10, 4);
    }
  }

  private static void piece(GraphicsContext g, double x, double y, double width, double height) {
    g.fillRect(x, y, width, height);
    g.strokeRect(x, y, width, height);
  }
}
