package joiner.map;

import static org.assertj.core.api.Assertions.assertThat;

import com.lowagie.text.pdf.PdfReader;
import com.lowagie.text.pdf.parser.PdfTextExtractor;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import joiner.Pottery;
import joiner.map.MapPicture.Format;
import joiner.model.Design;
import joiner.model.Table;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.w3c.dom.NodeList;

class MapPictureTest {
  private static final Design DEMO = Pottery.demo().design();

  @BeforeAll
  static void withoutADisplay() {
    System.setProperty("java.awt.headless", "true");
  }

  private static MapPicture picture(PictureTheme theme) {
    var builder = new LayoutBuilder(DEMO, Scope.all(DEMO), Detail.FIELDS);
    MapLayout layout = builder.placed(LayoutKernel.layOut(builder.graph()));
    return new MapPicture(layout, theme, "A <b> & c");
  }

  /** The file is well-formed XML, and each table's name is a text in it. */
  @Test
  void anSvgHasItsTextsAsTexts() throws Exception {
    byte[] svg = picture(PictureTheme.LIGHT).bytes(Format.SVG);
    var document =
        DocumentBuilderFactory.newDefaultInstance()
            .newDocumentBuilder()
            .parse(new ByteArrayInputStream(svg));
    assertThat(document.getDocumentElement().getTagName()).isEqualTo("svg");
    assertThat(document.getElementsByTagName("title").item(0).getTextContent())
        .isEqualTo("A <b> & c");
    NodeList texts = document.getElementsByTagName("text");
    var words = new StringBuilder();
    for (int i = 0; i < texts.getLength(); i++) {
      words.append(texts.item(i).getTextContent()).append('\n');
    }
    assertThat(words.toString())
        .contains(DEMO.tables().stream().map(Table::label).toList())
        .contains("loaded_by", "PK", "FK");
    assertThat(new String(svg, StandardCharsets.UTF_8)).contains("IBM Plex Sans");
  }

  /** Read back by the library's own reader, which is not the code that drew it. */
  @Test
  void aPdfHasItsTextsAsTexts() throws Exception {
    byte[] pdf = picture(PictureTheme.LIGHT).bytes(Format.PDF);
    try (var reader = new PdfReader(pdf)) {
      assertThat(reader.getNumberOfPages()).isEqualTo(1);
      assertThat(reader.getInfo()).containsEntry("Title", "A <b> & c");
      String text = new PdfTextExtractor(reader).getTextFromPage(1).replaceAll("\\s+", "");
      assertThat(text).contains("Member", "Recipeline", "loaded_by");
    }
  }

  @ParameterizedTest
  @EnumSource(PictureTheme.class)
  void aPngIsSharpAndOnItsPaper(PictureTheme theme) throws Exception {
    BufferedImage image = ImageIO.read(new ByteArrayInputStream(picture(theme).bytes(Format.PNG)));
    assertThat(image.getWidth()).isGreaterThan(1_500);
    assertThat(image.getRGB(1, 1)).isEqualTo(theme.of(Ink.PAPER).getRGB());
  }

  /** What is written has the colours of the window. */
  @ParameterizedTest
  @EnumSource(PictureTheme.class)
  void coloursAreThoseOfTheWindow(PictureTheme theme) throws Exception {
    String css =
        Files.readString(Path.of("../desktop/src/main/resources/joiner/desktop/theme/joiner.css"));
    int dark = css.indexOf(".dark");
    String part = theme == PictureTheme.LIGHT ? css.substring(0, dark) : css.substring(dark);
    for (Ink ink : Ink.values()) {
      String name =
          switch (ink) {
            case TEXT -> "ink";
            case PAPER, BOARD, MUTED, LINE, SPRUCE, OAK, BRICK -> ink.name().toLowerCase();
            default -> "area-" + (ink.ordinal() - Ink.HUE_0.ordinal());
          };
      assertThat(part)
          .contains("-joiner-%s: #%06X;".formatted(name, theme.of(ink).getRGB() & 0xFFFFFF));
    }
  }
}
