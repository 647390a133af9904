package joiner.desktop.map;

import joiner.map.MapLayout;

/**
 * Which part of the map is in sight.
 *
 * @param x where the map's origin lies in the window, in pixels
 * @param y likewise
 * @param zoom window pixels per map pixel
 * @param width of the window
 * @param height of the window
 */
record Viewport(double x, double y, double zoom, double width, double height) {
  /** As far as one zooms out by hand; a map that needs more to be seen whole gets it. */
  static final double SMALLEST = 0.08;

  static final double LARGEST = 2;

  /** Of a window that has no size yet. */
  private static final double NEARLY_NOTHING = 1e-4;

  /** Everything in sight, at most at full size, from the upper left. */
  static Viewport fitting(MapLayout layout, double width, double height) {
    double whole =
        Math.min(width / Math.max(1, layout.width()), height / Math.max(1, layout.height()));
    double zoom = Math.clamp(whole, NEARLY_NOTHING, 1);
    double x = Math.max(0, (width - layout.width() * zoom) / 2);
    double y = Math.max(0, (height - layout.height() * zoom) / 2);
    return new Viewport(x, y, zoom, width, height);
  }

  Viewport moved(double dx, double dy) {
    return new Viewport(x + dx, y + dy, zoom, width, height);
  }

  /** Zoomed so that what is under that place stays there. */
  Viewport zoomed(double factor, double atX, double atY) {
    double next = Math.clamp(zoom * factor, Math.min(SMALLEST, zoom), LARGEST);
    double ratio = next / zoom;
    return new Viewport(atX - (atX - x) * ratio, atY - (atY - y) * ratio, next, width, height);
  }

  Viewport sized(double otherWidth, double otherHeight) {
    return new Viewport(x, y, zoom, otherWidth, otherHeight);
  }

  double mapX(double windowX) {
    return (windowX - x) / zoom;
  }

  double mapY(double windowY) {
    return (windowY - y) / zoom;
  }

  boolean shows(MapLayout.Placed placed) {
    return inSight(
        placed.x() - 12,
        placed.y(),
        placed.x() + placed.board().width() + 12,
        placed.y() + placed.board().height());
  }

  boolean shows(double[] points) {
    double left = Double.MAX_VALUE;
    double top = Double.MAX_VALUE;
    double right = -Double.MAX_VALUE;
    double bottom = -Double.MAX_VALUE;
    for (int i = 0; i < points.length; i += 2) {
      left = Math.min(left, points[i]);
      right = Math.max(right, points[i]);
      top = Math.min(top, points[i + 1]);
      bottom = Math.max(bottom, points[i + 1]);
    }
    return inSight(left - 12, top - 12, right + 12, bottom + 12);
  }

  private boolean inSight(double left, double top, double right, double bottom) {
    return right * zoom + x >= 0
        && left * zoom + x <= width
        && bottom * zoom + y >= 0
        && top * zoom + y <= height;
  }
}
