package joiner.desktop.map;

import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;
import javafx.scene.shape.Rectangle;
import joiner.map.Ink;

/**
 * The theme's colours for what is drawn by hand, read from unseen shapes that the style sheet
 * colours.
 */
final class MapColors {
  private final Group probes = new Group();
  private final Map<Ink, Rectangle> byInk = new EnumMap<>(Ink.class);

  MapColors(Runnable changed) {
    for (Ink ink : Ink.values()) {
      byInk.put(ink, probe(style(ink)));
    }
    probes.setVisible(false);
    probes.setManaged(false);
    byInk.get(Ink.TEXT).fillProperty().subscribe((was, is) -> changed.run());
  }

  private static String style(Ink ink) {
    String name = ink.name().toLowerCase(Locale.ROOT);
    return name.startsWith("hue_") ? name.replace("hue_", "area-") : "map-probe-" + name;
  }

  private Rectangle probe(String style) {
    var probe = new Rectangle(1, 1, Color.TRANSPARENT);
    probe.getStyleClass().add(style);
    probes.getChildren().add(probe);
    return probe;
  }

  Node node() {
    return probes;
  }

  /** The colour of a role in the theme that is worn. */
  Paint of(Ink ink) {
    return byInk.get(ink).getFill();
  }
}
