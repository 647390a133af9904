package joiner.desktop.map;

import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import joiner.map.Ink;
import joiner.map.MapDrawing;
import joiner.map.MapLayout;
import joiner.map.Pen;

/** Draws maps on a canvas of the window. */
final class MapPainter implements Pen {
  private static final Letters BOLD = new Letters("IBM Plex Sans SemiBold");
  private static final Letters PLAIN = new Letters("IBM Plex Sans");

  private final GraphicsContext g;
  private final MapColors colors;

  MapPainter(GraphicsContext g, MapColors colors) {
    this.g = g;
    this.colors = colors;
  }

  void paint(MapLayout layout, Viewport view, MapDrawing.Emphasis emphasis) {
    g.setTransform(1, 0, 0, 1, 0, 0);
    g.setFill(colors.of(Ink.PAPER));
    g.fillRect(0, 0, view.width(), view.height());
    toMap(view);
    new MapDrawing(this, view.zoom(), emphasis).draw(layout, view::shows, view::shows);
  }

  private void toMap(Viewport view) {
    g.setTransform(view.zoom(), 0, 0, view.zoom(), view.x(), view.y());
    g.setTextBaseline(VPos.CENTER);
    g.setTextAlign(TextAlignment.LEFT);
  }

  /** A line from a board to where the mouse is. */
  void band(MapLayout.Placed from, Viewport view, double x, double y) {
    toMap(view);
    double pixel = 1 / view.zoom();
    double right = from.x() + from.board().width();
    frame(Ink.SPRUCE, 2 * pixel, from.x(), from.y(), from.board().width(), from.board().height());
    double startX = x > (from.x() + right) / 2 ? right : from.x();
    double startY = Math.clamp(y, from.y(), from.y() + from.board().height());
    line(Ink.SPRUCE, 2 * pixel, startX, startY, x, y);
    g.setFill(colors.of(Ink.SPRUCE));
    g.fillOval(x - 4 * pixel, y - 4 * pixel, 8 * pixel, 8 * pixel);
  }

  @Override
  public void fill(Ink ink, double x, double y, double width, double height) {
    g.setFill(colors.of(ink));
    g.fillRect(x, y, width, height);
  }

  @Override
  public void tint(Ink ink, double x, double y, double width, double height) {
    g.setGlobalAlpha(TINT);
    fill(ink, x, y, width, height);
    g.setGlobalAlpha(1); // Nothing but paper is below.
  }

  @Override
  public void frame(Ink ink, double thick, double x, double y, double width, double height) {
    g.setStroke(colors.of(ink));
    g.setLineWidth(thick);
    g.strokeRect(x, y, width, height);
  }

  @Override
  public void line(Ink ink, double thick, double... points) {
    g.setStroke(colors.of(ink));
    g.setLineWidth(thick);
    g.beginPath();
    g.moveTo(points[0], points[1]);
    for (int i = 2; i < points.length; i += 2) {
      g.lineTo(points[i], points[i + 1]);
    }
    g.stroke();
  }

  @Override
  public void text(Ink ink, boolean bold, double size, double x, double middle, String text) {
    g.setFont((bold ? BOLD : PLAIN).font(size));
    g.setFill(colors.of(ink));
    g.fillText(text, x, middle);
  }

  @Override
  public double width(boolean bold, double size, String text) {
    return (bold ? BOLD : PLAIN).width(text, size);
  }
}
