package joiner.desktop.map;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;
import javafx.scene.shape.Rectangle;
import joiner.model.Area;

/**
 * The theme's colours for what is drawn by hand, read from unseen shapes that the style sheet
 * colours.
 */
final class MapColors {
  private final Group probes = new Group();
  private final Rectangle ink = probe("map-probe-ink");
  private final Rectangle muted = probe("map-probe-muted");
  private final Rectangle line = probe("map-probe-line");
  private final Rectangle board = probe("map-probe-board");
  private final Rectangle paper = probe("map-probe-paper");
  private final Rectangle spruce = probe("map-probe-spruce");
  private final Rectangle oak = probe("map-probe-oak");
  private final Rectangle brick = probe("map-probe-brick");
  private final List<Rectangle> areas = new ArrayList<>();

  MapColors(Runnable changed) {
    for (int hue = 0; hue < Area.HUES; hue++) {
      areas.add(probe("area-" + hue));
    }
    probes.setVisible(false);
    probes.setManaged(false);
    ink.fillProperty().subscribe((was, is) -> changed.run());
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

  Paint ink() {
    return ink.getFill();
  }

  Paint muted() {
    return muted.getFill();
  }

  Paint line() {
    return line.getFill();
  }

  Paint board() {
    return board.getFill();
  }

  Paint paper() {
    return paper.getFill();
  }

  Paint spruce() {
    return spruce.getFill();
  }

  Paint oak() {
    return oak.getFill();
  }

  Paint brick() {
    return brick.getFill();
  }

  Paint area(int hue) {
    return hue < 0 ? line.getFill() : areas.get(hue).getFill();
  }
}
