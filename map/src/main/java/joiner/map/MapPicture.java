package joiner.map;

import com.lowagie.text.Document;
import com.lowagie.text.DocumentException;
import com.lowagie.text.Rectangle;
import com.lowagie.text.pdf.BaseFont;
import com.lowagie.text.pdf.DefaultFontMapper;
import com.lowagie.text.pdf.PdfGraphics2D;
import com.lowagie.text.pdf.PdfTemplate;
import com.lowagie.text.pdf.PdfWriter;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import javax.imageio.ImageIO;
import org.jfree.svg.SVGGraphics2D;

/**
 * A map as a file. In SVG (W3C, Scalable Vector Graphics 1.1) and PDF (ISO 32000) its texts are
 * texts, which can be searched and copied; a PNG (ISO/IEC 15948) has twice as many pixels as the
 * map so that it can be printed.
 */
public final class MapPicture {
  private static final double SHARP = 2;

  /** A side of more pixels no viewer shows. */
  private static final double MOST_PIXELS = 16_000;

  private final MapLayout layout;
  private final PictureTheme theme;
  private final String title;

  /**
   * A picture of a layout.
   *
   * @param title of the design
   */
  public MapPicture(MapLayout layout, PictureTheme theme, String title) {
    this.layout = layout;
    this.theme = theme;
    this.title = title;
  }

  /** What a picture is written as. */
  public enum Format {
    SVG,
    PDF,
    PNG;

    /** The one that a file's name ends in. */
    public static Optional<Format> of(Path file) {
      String name = file.getFileName().toString().toLowerCase(Locale.ROOT);
      return Arrays.stream(values())
          .filter(format -> name.endsWith("." + format.name().toLowerCase(Locale.ROOT)))
          .findFirst();
    }
  }

  /** Writes the picture, in the place of what stands there. */
  public void write(Path file, Format format) throws IOException {
    Files.write(file, bytes(format));
  }

  /** The picture as the bytes of a file. */
  byte[] bytes(Format format) throws IOException {
    return switch (format) {
      case SVG -> svg().getBytes(StandardCharsets.UTF_8);
      case PDF -> pdf();
      case PNG -> png();
    };
  }

  private double width() {
    return Math.max(1, layout.width());
  }

  private double height() {
    return Math.max(1, layout.height());
  }

  private void draw(Graphics2D g) {
    var pen = new AwtPen(g, theme);
    pen.fill(Ink.PAPER, 0, 0, width(), height());
    new MapDrawing(pen, 1, MapDrawing.Emphasis.NONE).draw(layout, board -> true, route -> true);
  }

  private String svg() {
    var g = new SVGGraphics2D(width(), height());
    g.setFontFunction(
        family -> family.startsWith("IBM Plex") ? "IBM Plex Sans, sans-serif" : family);
    draw(g);
    String name = title.replace("&", "&amp;").replace("<", "&lt;");
    String picture = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n" + g.getSVGElement();
    return picture.replaceFirst("(<svg [^>]*>)", "$1<title>" + quoted(name) + "</title>");
  }

  private static String quoted(String text) {
    return Matcher.quoteReplacement(text);
  }

  private byte[] pdf() throws IOException {
    var out = new ByteArrayOutputStream();
    var document = new Document(new Rectangle((float) width(), (float) height()), 0, 0, 0, 0);
    try {
      PdfWriter writer = PdfWriter.getInstance(document, out);
      document.addTitle(title);
      document.addCreator("Joiner");
      document.open();
      PdfTemplate page =
          writer.getDirectContent().createTemplate((float) width(), (float) height());
      var g =
          new PdfGraphics2D(
              page, (float) width(), (float) height(), new OwnFonts(), false, false, 0);
      draw(g);
      g.dispose();
      writer.getDirectContent().addTemplate(page, 0, 0);
      document.close();
    } catch (DocumentException e) {
      throw new IOException("the PDF could not be written: " + e.getMessage(), e);
    }
    return out.toByteArray();
  }

  private byte[] png() throws IOException {
    double sharp = Math.min(SHARP, MOST_PIXELS / Math.max(width(), height()));
    var image =
        new BufferedImage(
            (int) Math.ceil(width() * sharp),
            (int) Math.ceil(height() * sharp),
            BufferedImage.TYPE_INT_RGB);
    Graphics2D g = image.createGraphics();
    g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
    g.setRenderingHint(
        RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
    g.scale(sharp, sharp);
    draw(g);
    g.dispose();
    var out = new ByteArrayOutputStream();
    ImageIO.write(image, "png", out);
    return out.toByteArray();
  }

  /** The fonts that come with Joiner go into the file, as far as their letters are used. */
  private static final class OwnFonts extends DefaultFontMapper {
    private final BaseFont plain = embedded("IBMPlexSans_400Regular");
    private final BaseFont bold = embedded("IBMPlexSans_600SemiBold");

    private static BaseFont embedded(String name) {
      try (InputStream in = MapPicture.class.getResourceAsStream("fonts/" + name + ".ttf")) {
        byte[] bytes = in == null ? new byte[0] : in.readAllBytes();
        return BaseFont.createFont(
            name + ".ttf", BaseFont.IDENTITY_H, BaseFont.EMBEDDED, true, bytes, null);
      } catch (IOException | DocumentException e) {
        throw new IllegalStateException("the font " + name + " cannot be read", e);
      }
    }

    @Override
    public BaseFont awtToPdf(Font font) {
      return font.getFontName(Locale.ROOT).contains("Semi") ? bold : plain;
    }
  }
}
