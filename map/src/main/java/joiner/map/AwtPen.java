package joiner.map;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.Graphics2D;
import java.awt.font.FontRenderContext;
import java.awt.font.LineMetrics;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;

/** Draws on anything that Java 2D draws on. */
final class AwtPen implements Pen {
  static final Font PLAIN = load("IBMPlexSans_400Regular");
  static final Font BOLD = load("IBMPlexSans_600SemiBold");
  private static final FontRenderContext MEASURES = new FontRenderContext(null, true, true);

  private final Graphics2D g;
  private final PictureTheme theme;

  AwtPen(Graphics2D g, PictureTheme theme) {
    this.g = g;
    this.theme = theme;
  }

  private static Font load(String name) {
    try (InputStream in = AwtPen.class.getResourceAsStream("fonts/" + name + ".ttf")) {
      if (in == null) {
        throw new IllegalStateException("the font " + name + " does not come with Joiner");
      }
      return Font.createFont(Font.TRUETYPE_FONT, in);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (FontFormatException e) {
      throw new IllegalStateException(e);
    }
  }

  @Override
  public void fill(Ink ink, double x, double y, double width, double height) {
    g.setColor(theme.of(ink));
    g.fill(new Rectangle2D.Double(x, y, width, height));
  }

  @Override
  public void tint(Ink ink, double x, double y, double width, double height) {
    Color paper = theme.of(Ink.PAPER);
    Color full = theme.of(ink);
    g.setColor(
        new Color(
            mixed(paper.getRed(), full.getRed()),
            mixed(paper.getGreen(), full.getGreen()),
            mixed(paper.getBlue(), full.getBlue())));
    g.fill(new Rectangle2D.Double(x, y, width, height));
  }

  private static int mixed(int paper, int full) {
    return (int) Math.round(paper + TINT * (full - paper));
  }

  @Override
  public void frame(Ink ink, double thick, double x, double y, double width, double height) {
    stroke(ink, thick);
    g.draw(new Rectangle2D.Double(x, y, width, height));
  }

  @Override
  public void line(Ink ink, double thick, double... points) {
    stroke(ink, thick);
    var path = new Path2D.Double();
    path.moveTo(points[0], points[1]);
    for (int i = 2; i < points.length; i += 2) {
      path.lineTo(points[i], points[i + 1]);
    }
    g.draw(path);
  }

  private void stroke(Ink ink, double thick) {
    g.setColor(theme.of(ink));
    g.setStroke(new BasicStroke((float) thick));
  }

  private static Font font(boolean bold, double size) {
    return (bold ? BOLD : PLAIN).deriveFont((float) size);
  }

  @Override
  public void text(Ink ink, boolean bold, double size, double x, double middle, String text) {
    Font font = font(bold, size);
    LineMetrics lines = font.getLineMetrics(text, MEASURES);
    g.setColor(theme.of(ink));
    g.setFont(font);
    double baseline = middle + (lines.getAscent() - lines.getDescent()) / 2;
    g.drawString(text, (float) x, (float) baseline);
  }

  @Override
  public double width(boolean bold, double size, String text) {
    return font(bold, size).getStringBounds(text, MEASURES).getWidth();
  }
}
